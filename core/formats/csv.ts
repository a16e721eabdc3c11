import Papa from 'papaparse';
import { type Result, err, ok } from '../model/result';
import { fileNumber } from '../quantity/number';

export interface Table {
  columns: string[];
  /** cells as written, trimmed */
  rows: string[][];
  /** the row of each, as a spreadsheet counts: the first line of the file is 1, empty ones count too */
  lines: number[];
  delimiter: string;
}

type TableError =
  | { tag: 'empty' }
  | { tag: 'duplicateColumn'; column: string }
  | { tag: 'malformed'; message: string };

/** Says in one plain line what is wrong with a table. */
export function describeTableError(e: TableError): string {
  switch (e.tag) {
    case 'empty':
      return 'The file holds no rows below its heading line.';
    case 'duplicateColumn':
      return `Two columns are called “${e.column}”.`;
    case 'malformed':
      return `The file can't be read as a table: ${e.message}`;
  }
}

const delimiters = ['\t', ';', ','] as const;

/** The one of tab, semicolon and comma that splits the heading most; a comma where none splits it. */
function delimiterOf(heading: string): string {
  const counts = delimiters.map(
    (delimiter) => Papa.parse<string[]>(heading, { delimiter }).data[0]?.length ?? 0,
  );
  const most = Math.max(...counts);
  return most < 2 ? ',' : delimiters[counts.indexOf(most)]!;
}

const isBlank = (cells: readonly string[]) => cells.every((c) => c.trim() === '');

/**
 * Reads delimited text with a heading line; tab, semicolon or comma is found from the heading.
 * @param text the file's text, with or without a byte-order mark
 */
export function readTable(text: string): Result<Table, TableError> {
  const plain = text.replace(/^\uFEFF/, '');
  const heading = plain.split(/\r\n|\n|\r/).find((line) => line.trim() !== '') ?? '';
  const delimiter = delimiterOf(heading);
  const parsed = Papa.parse<string[]>(plain, { delimiter });
  const fatal = parsed.errors.find((e) => e.type === 'Quotes');
  if (fatal) return err({ tag: 'malformed', message: `${fatal.message} (row ${(fatal.row ?? 0) + 1})` });
  const filled = parsed.data.flatMap((cells, i) =>
    isBlank(cells) ? [] : [{ cells: cells.map((c) => c.trim()), line: i + 1 }],
  );
  const [head, ...body] = filled;
  if (!head || body.length === 0) return err({ tag: 'empty' });
  const columns = head.cells;
  const twice = columns.find((c, i) => c !== '' && columns.indexOf(c) !== i);
  if (twice !== undefined) return err({ tag: 'duplicateColumn', column: twice });
  return ok({ columns, rows: body.map((r) => r.cells), lines: body.map((r) => r.line), delimiter });
}

/**
 * A cell's number; a decimal comma is understood where the delimiter isn't a comma.
 * @returns null for what isn't a finite number
 * @example cellNumber('3,5', ';') // 3.5
 */
export const cellNumber = (text: string, delimiter: string): number | null =>
  delimiter === ',' && text.includes(',') ? null : fileNumber(text);

/** A cell's text that a spreadsheet would take for a formula, defused; as the CSV writer does it. */
export const neutralised = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** Writes rows as CSV; text that a spreadsheet would take for a formula is defused. */
export function writeCsv(
  columns: readonly string[],
  rows: readonly (string | number | boolean | null)[][],
): string {
  return `${Papa.unparse({ fields: [...columns], data: rows.map((r) => [...r]) }, { newline: '\n', escapeFormulae: true })}\n`;
}
