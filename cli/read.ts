import { readFileSync } from 'node:fs';
import { findingsOfTable } from '~core/table/findingsOfTable';
import { type Grid, cellText, gridOf } from '~core/table/sheet';
import { sentenceCase } from '~core/quantity/format';
import { doubtsOf } from '~core/table/doubts';
import { understand } from '~core/table/understand';
import type { Column } from '~core/table/understood';
import { readArgs } from './options';
import { PlainError } from './plainError';
import { figure, lines, oneFile, pText } from './table';

export const readUsage = `palazzo read FILE [--sheet NAME] [--treatment COL] [--response COL] [--unit COL] [--block COL]
  [--control LEVEL] [--json]`;

/** A workbook's cells as text. */
async function workbook(bytes: Buffer, file: string, sheet: string | undefined): Promise<Grid> {
  const { default: readXlsx } = await import('read-excel-file/node');
  const sheets = await readXlsx(bytes).catch((e: Error) => {
    throw new PlainError(`${file} can't be read as a workbook: ${e.message}`);
  });
  const chosen = sheet === undefined ? sheets[0] : sheets.find((s) => s.sheet === sheet);
  if (!chosen)
    throw new PlainError(
      `${file} has no sheet “${sheet ?? ''}”; there are ${sheets.map((s) => s.sheet).join(', ')}.`,
    );
  return chosen.data.map((row) => row.map(cellText));
}

/** Runs `read` and returns what goes to stdout. */
export async function read(args: string[]): Promise<string> {
  const text = { type: 'string' } as const;
  const { values, positionals } = readArgs(
    args,
    {
      ...{ sheet: text, treatment: text, response: text, unit: text, block: text, control: text },
      json: { type: 'boolean', default: false },
    },
    true,
  );
  const file = oneFile(positionals);
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
  } catch {
    throw new PlainError(`The file “${file}” can't be read.`);
  }
  const zipped = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const grid = zipped ? await workbook(bytes, file, values.sheet) : gridOf(bytes.toString('utf8'));
  const { treatment, response, unit, block, control } = values;
  const understood = understand(grid, {
    ...(treatment !== undefined && { treatment }),
    ...(response !== undefined && { response }),
    ...(unit !== undefined && { unit }),
    ...(block !== undefined && { block }),
    ...(control !== undefined && { control }),
  });
  if (!understood.ok) throw new PlainError(`${file}: ${understood.error.text}`);
  const { shape, decimal, rows, left, control: held, columns } = understood.value;
  const findings = findingsOfTable(understood.value);
  if (values.json) return JSON.stringify({ shape, decimal, rows, left, control: held, columns, findings });
  return [
    `${rows} lines of data, ${shape === 'long' ? 'a line each' : 'a column each'}; decimals after “${decimal}”.`,
    held === null ? 'No control: all pairs are compared.' : `Control: ${held}.`,
    lines(['column', 'is', 'holds', 'unit'], columns.map(columnLine)),
    ...left.map((l) => `Row ${l.row} is left: ${l.why}.`),
    ...doubtsOf(understood.value).map((d) => sentenceCase(d.text)),
    lines(
      ['trait', 'day', 'crop', 'method', held === null ? 'against the first' : `against ${held}`, 'difference', 'low', 'high', 'p'], // prettier-ignore
      findings.flatMap((f) =>
        f.versusControl.map((c) => [
          ...[f.trait, f.round ?? '', f.crop ?? '', f.method, c.name],
          ...[c.difference, c.low, c.high].map(figure),
          pText(c.p),
        ]),
      ),
    ),
  ].join('\n');
}

const columnLine = ({ name, role, kind, unit }: Column) => [name, role, kind ?? '', unit ?? ''];
