import Papa from 'papaparse';
import { type Result, err, ok } from '../model/result';
import { fileNumber } from '../quantity/number';
import { type DateOrder, type WallMs, dateOrder, parseClock, parseMoment } from './moment';
import { type SeriesQuantity, isTimeHeading, quantityOf } from './quantities';

export interface LoggerColumn {
  /** in full, as in the heading */
  name: string;
  quantity: SeriesQuantity | null;
  unit: string | null;
  /** a number a row, NaN where there is none */
  values: Float64Array;
}

/** A row, or a cell of it, that wasn't taken. Rows count as a spreadsheet counts them: the first line is 1. */
interface SkippedRow {
  row: number;
  why: string;
}

/** What a logger wrote, by time. */
export interface LoggerTable {
  times: Float64Array;
  columns: LoggerColumn[];
  skipped: SkippedRow[];
  /** how many rows weren't taken whole; `skipped` holds the first of them */
  skippedRows: number;
  order: DateOrder;
  timeColumn: string;
}

export type LoggerError =
  | { tag: 'empty' }
  | { tag: 'noHeading' }
  | { tag: 'noColumn'; name: string; columns: string[] }
  | { tag: 'noTime'; columns: string[] }
  | { tag: 'noNumbers' }
  | { tag: 'ambiguous'; row: number; column: string; example: string }
  | { tag: 'tooLong'; rows: number };

export function describeLoggerError(e: LoggerError): string {
  switch (e.tag) {
    case 'empty':
      return 'The file holds no rows.';
    case 'noHeading':
      return 'No heading line with rows of times and numbers below it was found.';
    case 'noColumn':
      return `There is no column “${e.name}”; the columns are ${e.columns.join(', ')}.`;
    case 'noTime':
      return `No column holds times; the columns are ${e.columns.join(', ')}.`;
    case 'noNumbers':
      return 'No column beside the time holds numbers.';
    case 'ambiguous':
      return `Row ${e.row}, column “${e.column}”: “${e.example}” may be day first or month first, and no row of the file tells. Say which.`;
    case 'tooLong':
      return `The file has ${e.rows} rows; up to ${MOST_ROWS} are read at once.`;
  }
}

export interface LoggerOptions {
  /** name of the column with the times; left out: found */
  timeColumn?: string | undefined;
  /** order of dates where the file doesn't tell */
  order?: 'dmy' | 'mdy' | undefined;
}

const MOST_ROWS = 5_000_000;
const MOST_SKIPPED_LISTED = 10_000;
/** Lines above the heading a logger may write: its name, serial number, settings. */
const MOST_PREAMBLE = 60;
const SAMPLE = 400;

const delimiters = ['\t', ';', ','] as const;

const cellsOf = (line: string, delimiter: string): string[] => {
  if (!line.includes('"')) return line.split(delimiter);
  return Papa.parse<string[]>(line, { delimiter }).data[0] ?? [];
};

/** The one of tab, semicolon and comma that splits a line most. */
function delimiterOf(line: string): string {
  const counts = delimiters.map((d) => cellsOf(line, d).length);
  return delimiters[counts.indexOf(Math.max(...counts))]!;
}

const isMoment = (text: string) => parseMoment(text, 'dmy') !== null || parseMoment(text, 'mdy') !== null;
const isBlank = (text: string) => text === '' || text === 'NA';

/** A cell's number; NaN where it isn't one. */
function numberOf(text: string, commas: boolean): number {
  const value = Number(text);
  if (Number.isFinite(value) && !/[xob]/i.test(text)) return value;
  if (text.includes(',') && !commas) return NaN;
  return fileNumber(text) ?? NaN;
}

interface Found {
  header: number;
  delimiter: string;
  names: string[];
}

function findHeading(lines: readonly string[]): Found | null {
  const filled = (from: number) => {
    for (let i = from; i < Math.min(lines.length, from + 5); i++)
      if (lines[i]!.trim() !== '') return lines[i]!;
    return null;
  };
  for (let i = 0; i < Math.min(lines.length, MOST_PREAMBLE); i++) {
    if (lines[i]!.trim() === '') continue;
    const delimiter = delimiterOf(lines[i]!);
    const names = cellsOf(lines[i]!, delimiter).map((c) => c.trim());
    const next = filled(i + 1);
    if (names.length < 2 || next === null) continue;
    const hasMoment = (cells: string[]) => cells.some((c) => isMoment(c.trim()));
    if (hasMoment(names)) return null;
    // The line above times is the heading; where its first rows are faulty, a line that names a time is.
    if (hasMoment(cellsOf(next, delimiter)) || names.some(isTimeHeading))
      return { header: i, delimiter, names };
  }
  return null;
}

interface Roles {
  time: number;
  /** the time of day, where it stands in a column of its own */
  clock: number | null;
  numbers: number[];
}

function findRoles(
  { names, delimiter }: Found,
  sample: readonly string[][],
  timeColumn: string | undefined,
): Result<Roles, LoggerError> {
  const shareOf = (rows: readonly string[][], at: number, test: (cell: string) => boolean) => {
    const cells = rows.map((r) => r[at] ?? '').filter((c) => !isBlank(c));
    return cells.length === 0 ? 0 : cells.filter(test).length / cells.length;
  };
  const all = names.map((_, i) => i);
  let time: number;
  if (timeColumn !== undefined) {
    time = names.indexOf(timeColumn);
    if (time < 0) return err({ tag: 'noColumn', name: timeColumn, columns: names });
  } else {
    // A heading that names a time may stand above some rows that aren't one; other columns have to be times for the most
    // part, and not mere long numbers.
    const dated = all.filter((i) =>
      isTimeHeading(names[i]!)
        ? shareOf(sample, i, isMoment) > 0
        : shareOf(sample, i, (c) => isMoment(c) && !/^\d+$/.test(c)) > 0.5,
    );
    time = dated.find((i) => isTimeHeading(names[i]!)) ?? dated[0] ?? -1;
    if (time < 0) return err({ tag: 'noTime', columns: names });
  }
  const rows = sample.filter((r) => isMoment(r[time] ?? ''));
  const share = (at: number, test: (cell: string) => boolean) => shareOf(rows, at, test);
  const isDateOnly = share(time, (c) => !/[:T]|\dh\d/.test(c)) > 0.9;
  const clock = isDateOnly
    ? (all.find((i) => i !== time && share(i, (c) => parseClock(c) !== null) > 0.5) ?? null)
    : null;
  const commas = delimiter !== ',';
  const numbers = all.filter(
    (i) =>
      i !== time &&
      i !== clock &&
      names[i] !== '' &&
      share(i, (c) => !Number.isNaN(numberOf(c, commas))) >= 0.5,
  );
  return numbers.length === 0 ? err({ tag: 'noNumbers' }) : ok({ time, clock, numbers });
}

/** A file being read: in short steps, so that whoever reads can report and stop. */
interface LoggerReading {
  total: number;
  done: () => number;
  /** reads up to so many rows more. @returns whether all are read */
  step: (rows: number) => boolean;
  /** what was read, by time; an error where the dates can't be told */
  result: () => Result<LoggerTable, LoggerError>;
}

/**
 * Opens what a logger wrote. The heading is found below whatever stands above it, the time by its heading and content
 * (also as date and clock in two columns), the numbers by theirs. A row whose time isn't one is left out, a cell that
 * isn't a number too; both are listed.
 *
 * @param text of the file, decoded
 * @returns the reading, to be stepped through, or why it can't be read
 */
export function openLogger(text: string, options: LoggerOptions = {}): Result<LoggerReading, LoggerError> {
  const lines = text.split(/\r\n|\n|\r/);
  if (lines.every((l) => l.trim() === '')) return err({ tag: 'empty' });
  const heading = findHeading(lines);
  if (!heading) return err({ tag: 'noHeading' });
  const { header, delimiter, names } = heading;
  const total = lines.length - header - 1;
  if (total > MOST_ROWS) return err({ tag: 'tooLong', rows: total });
  const stride = Math.max(1, Math.floor(total / SAMPLE));
  const sample: string[][] = [];
  for (let i = header + 1; i < lines.length; i += stride) {
    if (lines[i]!.trim() !== '') sample.push(cellsOf(lines[i]!, delimiter).map((c) => c.trim()));
  }
  if (sample.length === 0) return err({ tag: 'empty' });
  const roles = findRoles(heading, sample, options.timeColumn);
  if (!roles.ok) return roles;
  const { time, clock, numbers } = roles.value;
  const commas = delimiter !== ',';

  const times: string[] = [];
  const clocks: number[] = [];
  const rowOf: number[] = [];
  const values = numbers.map(() => new Float64Array(total));
  const faults = new Map<number, string>();
  let faulty = 0;
  const skip = (row: number, why: string) => {
    const before = faults.get(row);
    if (before === undefined) faulty += 1;
    if (before !== undefined) faults.set(row, `${before}; ${why}`);
    else if (faults.size < MOST_SKIPPED_LISTED) faults.set(row, why);
  };
  let at = header + 1;

  function readRow(line: string, row: number) {
    const cells = cellsOf(line, delimiter);
    if (cells.length === names.length && cells.every((c, i) => c.trim() === names[i])) {
      skip(row, 'the heading again');
      return;
    }
    const moment = (cells[time] ?? '').trim();
    const ofDay = clock === null ? 0 : parseClock((cells[clock] ?? '').trim());
    if (moment === '' || ofDay === null) {
      skip(row, moment === '' ? `no time in “${names[time]}”` : `no time of day in “${names[clock!]}”`);
      return;
    }
    const k = times.length;
    numbers.forEach((c, j) => {
      const cell = (cells[c] ?? '').trim();
      const value = isBlank(cell) ? NaN : numberOf(cell, commas);
      values[j]![k] = value;
      if (Number.isNaN(value) && !isBlank(cell))
        skip(row, `“${cell.slice(0, 40)}” in “${names[c]}” isn’t a number`);
    });
    times.push(moment);
    clocks.push(ofDay);
    rowOf.push(row);
  }

  return ok({
    total,
    done: () => at - header - 1,
    step: (rows) => {
      const end = Math.min(lines.length, at + rows);
      for (; at < end; at++) if (lines[at]!.trim() !== '') readRow(lines[at]!, at + 1);
      return at >= lines.length;
    },
    result: () => {
      const told = dateOrder(times);
      const order = told === 'ambiguous' ? options.order : told;
      if (order === undefined) {
        const k = times.findIndex((t) => parseMoment(t, 'dmy') !== parseMoment(t, 'mdy'));
        // Where both readings agree for every row there is nothing to ask.
        if (k >= 0)
          return err({ tag: 'ambiguous', row: rowOf[k]!, column: names[time]!, example: times[k]! });
      }
      const moments: WallMs[] = [];
      const keptColumns: number[] = [];
      times.forEach((t, k) => {
        const ms = parseMoment(t, order ?? 'dmy');
        if (ms === null) {
          faults.delete(rowOf[k]!);
          skip(rowOf[k]!, `“${t.slice(0, 40)}” in “${names[time]}” isn’t a time`);
          return;
        }
        moments.push(ms + clocks[k]!);
        keptColumns.push(k);
      });
      if (keptColumns.length === 0) return err({ tag: 'noTime', columns: names });
      const ascending = moments.every((m, i) => i === 0 || moments[i - 1]! <= m);
      const by = keptColumns.map((_, i) => i);
      if (!ascending) by.sort((p, q) => moments[p]! - moments[q]!);
      return ok({
        times: Float64Array.from(by, (i) => moments[i]!),
        columns: numbers.map((c, j) => ({
          name: names[c]!,
          ...quantityOf(names[c]!),
          values: Float64Array.from(by, (i) => values[j]![keptColumns[i]!]!),
        })),
        skipped: [...faults].map(([row, why]) => ({ row, why })).sort((a, b) => a.row - b.row),
        skippedRows: faulty,
        order: order ?? 'dmy',
        timeColumn: names[time]!,
      });
    },
  });
}

/** All of a file at once. @example readLogger('time;temp\n2026-03-01 00:00;18,5').value.times.length // 1 */
export function readLogger(text: string, options: LoggerOptions = {}): Result<LoggerTable, LoggerError> {
  const reading = openLogger(text, options);
  if (!reading.ok) return reading;
  reading.value.step(Infinity);
  return reading.value.result();
}
