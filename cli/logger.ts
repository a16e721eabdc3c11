import { readFileSync } from 'node:fs';
import { vapourPressureDeficit } from '~core/series/air';
import { decodeText } from '~core/series/decodeText';
import { dailyLightIntegral, extentOf, hoursOutside, readingsOf } from '~core/series/held';
import {
  type LoggerColumn,
  type LoggerTable,
  describeLoggerError,
  readLogger,
} from '~core/series/loggerFile';
import { wallText } from '~core/series/moment';
import { celsius } from '~core/quantity/temperature';
import { numberOption, readArgs } from './options';
import { PlainError } from './plainError';

export const loggerUsage = `palazzo logger FILE [--time COL] [--dates day-first|month-first]
  [--low X] [--high Y] [--column COL] [--json]`;

function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch {
    throw new PlainError(`The file “${file}” can't be read.`);
  }
}

const orders = { 'day-first': 'dmy', 'month-first': 'mdy' } as const;

/** The column a band is asked of. */
function bandColumn({ columns }: LoggerTable, name: string | undefined): LoggerColumn {
  const named = name === undefined ? columns[0]! : columns.find((c) => c.name === name);
  if (!named)
    throw new PlainError(
      `There is no numeric column “${name}”; there is ${columns.map((c) => c.name).join(', ')}.`,
    );
  if (name === undefined && columns.length > 1)
    throw new PlainError(`Say which column with --column: ${columns.map((c) => c.name).join(', ')}.`);
  return named;
}

/** Mean vapour-pressure deficit, row by row; null without both columns, or a row that has both. */
function meanDeficit({ columns }: LoggerTable): number | null {
  const temperature = columns.find((c) => c.quantity === 'temperature');
  const humidity = columns.find((c) => c.quantity === 'humidity');
  if (!temperature || !humidity) return null;
  const rows = temperature.values.map((t, i) =>
    vapourPressureDeficit(celsius(t, temperature.unit), humidity.values[i]!),
  );
  return extentOf(rows)?.mean ?? null;
}

/** Runs `logger` and returns what goes to stdout. */
export function logger(args: string[]): string {
  const { values: o, positionals } = readArgs(
    args,
    {
      time: { type: 'string' },
      dates: { type: 'string' },
      low: { type: 'string' },
      high: { type: 'string' },
      column: { type: 'string' },
      json: { type: 'boolean', default: false },
    },
    true,
  );
  const [file] = positionals;
  if (file === undefined || positionals.length !== 1) throw new PlainError('Name one logger file.');
  if (o.dates !== undefined && !(o.dates in orders))
    throw new PlainError(`--dates is day-first or month-first, not “${o.dates}”.`);
  const [low, high] = [numberOption('low', o.low) ?? null, numberOption('high', o.high) ?? null];
  if (low !== null && high !== null && low > high) throw new PlainError('--low is above --high.');
  const table = readLogger(decodeText(readBytes(file)), {
    timeColumn: o.time,
    order: orders[o.dates as keyof typeof orders],
  });
  if (!table.ok) {
    const hint = table.error.tag === 'ambiguous' ? ' (--dates day-first or --dates month-first)' : '';
    throw new PlainError(`${file}: ${describeLoggerError(table.error)}${hint}`);
  }
  const t = table.value;
  if (o.column !== undefined && low === null && high === null)
    throw new PlainError('--column goes with --low or --high.');
  const banded = low === null && high === null ? null : bandColumn(t, o.column);
  const light = t.columns.find((c) => c.quantity === 'ppfd');
  const deficit = meanDeficit(t);
  const answer = {
    rows: t.times.length,
    skipped: t.skipped,
    from: wallText(t.times[0]!),
    to: wallText(t.times[t.times.length - 1]!),
    columns: t.columns.map(({ name, unit, values }) => {
      const extent = extentOf(values);
      return { name, unit, min: extent?.min ?? null, mean: extent?.mean ?? null, max: extent?.max ?? null };
    }),
    vpdKPa: deficit === null ? null : { mean: deficit },
    dailyLightIntegral: light ? dailyLightIntegral(readingsOf(t.times, light.values)) : null,
    hoursOutside: banded ? hoursOutside(readingsOf(t.times, banded.values), low, high) : null,
  };
  return o.json ? JSON.stringify(answer, null, 1) : asText(answer, t.skippedRows);
}

const figure = (x: number | null) => (x === null ? '–' : String(Number(x.toPrecision(5))));

function asText(
  a: {
    rows: number;
    from: string;
    to: string;
    skipped: { row: number; why: string }[];
    columns: {
      name: string;
      unit: string | null;
      min: number | null;
      mean: number | null;
      max: number | null;
    }[];
    vpdKPa: { mean: number } | null;
    dailyLightIntegral: { day: string; mol: number }[] | null;
    hoursOutside: number | null;
  },
  skippedRows: number,
): string {
  return [
    `${a.rows} rows from ${a.from} to ${a.to}`,
    ...a.columns.map(
      (c) =>
        `${c.name}: ${figure(c.min)} to ${figure(c.max)}, mean ${figure(c.mean)}${c.unit ? ` (${c.unit})` : ''}`,
    ),
    ...(a.vpdKPa ? [`vapour-pressure deficit: mean ${figure(a.vpdKPa.mean)} kPa`] : []),
    ...(a.dailyLightIntegral ?? []).map((d) => `light on ${d.day}: ${figure(d.mol)} mol/m²`),
    ...(a.hoursOutside === null ? [] : [`outside the band: ${figure(a.hoursOutside)} h`]),
    ...(skippedRows > 0 ? [`${skippedRows} rows not taken whole:`] : []),
    ...a.skipped.slice(0, 20).map((s) => `  row ${s.row}: ${s.why}`),
  ].join('\n');
}
