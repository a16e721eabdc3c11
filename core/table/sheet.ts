import Papa from 'papaparse';
import { knownUnit, missing, summaryLine } from './words';
import { type Result, err, ok } from '../model/result';
import type { LeftLine, TableFault } from './understood';

/** Cells as text, a line a row of the spreadsheet. */
export type Grid = readonly (readonly string[])[];

/** A heading with the lines of data below it. */
export interface Sheet {
  heading: string[];
  rows: { row: number; cells: string[] }[];
  left: LeftLine[];
  decimal: '.' | ',';
}

/** A cell of a workbook as it would be typed. @example cellText(12.5) // '12.5' */
export const cellText = (cell: unknown): string =>
  cell === null || cell === undefined
    ? ''
    : cell instanceof Date
      ? cell.toISOString().slice(0, 10)
      : String(cell as string | number | boolean).trim();

const blank = (cells: readonly string[]) => cells.every((c) => c.trim() === '');

/** The one of tab, semicolon and comma that most lines are split by alike. */
function delimiterOf(text: string): string {
  const sample = text.split(/\r\n|\n|\r/).filter((l) => l.trim() !== '').slice(0, 30); // prettier-ignore
  const worth = (delimiter: string) => {
    const widths = sample.map((l) => Papa.parse<string[]>(l, { delimiter }).data[0]?.length ?? 0);
    const often = new Map<number, number>();
    for (const w of widths) if (w > 1) often.set(w, (often.get(w) ?? 0) + 1);
    return Math.max(0, ...often.values());
  };
  const worths = (['\t', ';', ','] as const).map((d) => [d, worth(d)] as const);
  const most = Math.max(...worths.map(([, w]) => w));
  return most === 0 ? ',' : worths.find(([, w]) => w === most)![0];
}

/** Delimited text as cells; tab, semicolon or comma is found from the lines. */
export function gridOf(text: string): string[][] {
  const plain = text.replace(/^\uFEFF/, '');
  return Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain) }).data.map((r) =>
    r.map((c) => c.trim()),
  );
}

/**
 * Which mark begins decimals in this table: told by its figures, never by the device.
 * @returns a cell that may be two figures where nothing tells which
 */
function decimalOf(grid: Grid): '.' | ',' | { doubt: string } {
  const cells = grid.flat().map((c) =>
    c
      .trim()
      .replace(/^[-−+]/, '')
      .replace(/\s?(%|[a-zA-Z²/°]{1,6})$/, ''),
  );
  // 1,5 and 12,2534 can't be thousands; 1,250.5 and 12.5 can't have a comma for decimals.
  const sure = (mark: string, other: string) =>
    cells.some((c) =>
      new RegExp(
        `^(\\d*\\${mark}(\\d{1,2}|\\d{4,})|0\\${mark}\\d+|\\d{1,3}(\\${other}\\d{3})+\\${mark}\\d+)$`,
      ).test(c),
    );
  if (sure('.', ',')) return '.';
  if (sure(',', '.')) return ',';
  // 1.250 alone is what programs write; 1,250 alone may be either.
  const doubt = cells.find((c) => /^\d{1,3},\d{3}$/.test(c));
  const twice = cells.some((c) => /^\d{1,3}(,\d{3}){2,}$/.test(c));
  return doubt !== undefined && !twice ? { doubt } : '.';
}

/**
 * A cell's figure in a table with this mark; a unit behind it is passed over.
 * @returns null where it isn't one
 * @example figureIn('1.250,5 g', ',') // 1250.5
 */
export function figureIn(cell: string, decimal: '.' | ','): number | null {
  const bare = cell.trim().replace('−', '-').replace(/^\+/, '').replace(/\s?(%|[a-zA-Z²/°]{1,6})$/, ''); // prettier-ignore
  const [thousands, mark] = decimal === ',' ? ['.', ','] : [',', '.'];
  const parts = new RegExp(`^-?(\\d+|\\d{1,3}(\\${thousands}\\d{3})+)?(\\${mark}\\d+)?(e[-+]?\\d+)?$`, 'i');
  if (!parts.test(bare) || !/\d/.test(bare)) return null;
  const value = Number(bare.replaceAll(thousands, '').replace(mark, '.'));
  return Number.isFinite(value) ? value : null;
}

const isFigure = (cell: string, decimal: '.' | ',') =>
  figureIn(cell, decimal) !== null || /^\d+\s*(\/|of)\s*\d+$/i.test(cell);
const isUnits = (cells: readonly string[]) =>
  !blank(cells) && cells.every((c) => c === '' || knownUnit.test(c.replace(/[()[\]]/g, '')));

/** Whether a line can be the heading: it names its columns, and under a name stand figures, from the next line on. */
function isHeading(grid: Grid, at: number, width: number, decimal: '.' | ','): boolean {
  const cells = grid[at]!;
  const filled = cells.filter((c) => c !== '').length;
  if (filled < 2 || filled < 0.6 * width) return false;
  const below = grid.slice(at + 1, at + 12).filter((r) => !blank(r) && !isUnits(r));
  return cells.some((c, i) => {
    if (c === '' || isFigure(c, decimal)) return false;
    const there = below.map((r) => r[i] ?? '').filter((x) => !missing.test(x));
    return (
      there.length > 0 &&
      isFigure(there[0]!, decimal) &&
      there.filter((x) => isFigure(x, decimal)).length >= 0.6 * there.length
    );
  });
}

/** Finds the heading of a table and its lines of data; what is neither is left, with its reason. */
export function sheetOf(grid: Grid): Result<Sheet, TableFault> {
  const decimal = decimalOf(grid);
  if (typeof decimal !== 'string')
    return err({
      text: `“${decimal.doubt}” may be ${decimal.doubt.replace(',', '.')} or ${decimal.doubt.replace(',', '')}: write the figures without marks for thousands.`,
    });
  const widths = grid.filter((r) => !blank(r)).map((r) => r.filter((c) => c !== '').length);
  const width = widths.toSorted((a, b) => a - b)[Math.floor(widths.length / 2)] ?? 0;
  const at = grid.findIndex((_, i) => isHeading(grid, i, width, decimal));
  const none = err({
    text: 'No heading with figures below it was found: the first line of a table names its columns.',
  });
  if (at < 0) return none;
  const last = grid.findLastIndex((r) => !blank(r));
  const heading = grid[at]!.map((c) => c.trim());
  const columns = heading.findLastIndex((c) => c !== '') + 1;
  const left: LeftLine[] = [];
  const rows: Sheet['rows'] = [];
  grid.slice(0, last + 1).forEach((cells, i) => {
    const row = i + 1;
    if (i === at) return;
    if (blank(cells)) left.push({ row, why: 'an empty line' });
    else if (i < at) left.push({ row, why: 'above the heading' });
    else if (cells.every((c, j) => c === heading[j])) left.push({ row, why: 'the heading again' });
    else if (cells.some((c) => summaryLine.test(c.trim())))
      left.push({ row, why: 'a line of sums or means' });
    else if (i === at + 1 && isUnits(cells)) left.push({ row, why: 'a line of units' });
    else if (cells.slice(0, columns).every((c) => missing.test(c.trim())))
      left.push({ row, why: 'nothing in it' });
    else rows.push({ row, cells: Array.from({ length: columns }, (_, j) => (cells[j] ?? '').trim()) });
  });
  return rows.length === 0 ? none : ok({ heading: heading.slice(0, columns), rows, left, decimal });
}
