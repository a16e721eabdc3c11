import { readFileSync } from 'node:fs';
import { type Table, cellNumber, describeTableError, readTable } from '~core/formats/csv';
import { PlainError } from './plainError';

/** A file of rows, with what a command asks of its cells; what is wrong names file, row and column. */
export class DataFile {
  private readonly table: Table;

  constructor(private readonly file: string) {
    let text: string;
    try {
      text = readFileSync(file, 'utf8');
    } catch {
      throw new PlainError(`The file “${file}” can't be read.`);
    }
    const table = readTable(text);
    if (!table.ok) throw new PlainError(`${file}: ${describeTableError(table.error)}`);
    this.table = table.value;
  }

  get size(): number {
    return this.table.rows.length;
  }

  /** Where a column stands; a plain error where there is none. */
  column(name: string): number {
    const { columns } = this.table;
    const at = columns.indexOf(name);
    if (at < 0) {
      throw new PlainError(`${this.file} has no column “${name}”; its columns are ${columns.join(', ')}.`);
    }
    return at;
  }

  private fault(row: number, column: number, what: string): PlainError {
    return new PlainError(
      `${this.file}, row ${this.table.lines[row]}, column “${this.table.columns[column]}”: ${what}`,
    );
  }

  private cell = (row: number, column: number): string => this.table.rows[row]![column] ?? '';

  /** A cell that has to say something: a treatment, a unit, a block. */
  label(row: number, column: number): string {
    const text = this.cell(row, column);
    if (text === '' || text === 'NA') throw this.fault(row, column, 'is empty.');
    return text;
  }

  /** A measured value; null where it is blank or NA. */
  response(row: number, column: number): number | null {
    const text = this.cell(row, column);
    return text === '' || text === 'NA' ? null : this.number(row, column);
  }

  /** A number that has to be there. */
  number(row: number, column: number): number {
    const text = this.cell(row, column);
    if (text === '' || text === 'NA') throw this.fault(row, column, 'is empty.');
    const value = cellNumber(text, this.table.delimiter);
    if (value === null) throw this.fault(row, column, `“${text}” isn't a number.`);
    return value;
  }

  /** A whole number from 0. */
  count(row: number, column: number): number {
    const value = this.number(row, column);
    if (!Number.isInteger(value) || value < 0)
      throw this.fault(row, column, `“${this.cell(row, column)}” isn't a whole number from 0.`);
    return value;
  }

  /** Refuses a cell for a reason of the command's own. */
  refuse(row: number, column: number, what: string): never {
    throw this.fault(row, column, what);
  }
}

/** A row as a unit: its treatment, its place, and what was seen. */
export interface UnitRow<T> {
  treatment: string;
  unit: string;
  /** block, stratum or taster; empty without one */
  place: string;
  value: T;
}

/**
 * Rows of one unit (in one place) put together; a unit belongs to one treatment.
 * @param together how the values of one unit make one
 */
export function byUnit<T>(rows: readonly UnitRow<T>[], together: (values: T[]) => T): UnitRow<T>[] {
  const treatmentOf = new Map<string, string>();
  const units = new Map<string, UnitRow<T> & { values: T[] }>();
  for (const row of rows) {
    const known = treatmentOf.get(row.unit);
    if (known !== undefined && known !== row.treatment) {
      throw new PlainError(
        `Unit “${row.unit}” is listed under two treatments: ${known} and ${row.treatment}.`,
      );
    }
    treatmentOf.set(row.unit, row.treatment);
    const key = JSON.stringify([row.unit, row.place]);
    const unit = units.get(key);
    if (unit) unit.values.push(row.value);
    else units.set(key, { ...row, values: [row.value] });
  }
  return [...units.values()].map(({ values, ...row }) => ({ ...row, value: together(values) }));
}

export const meanOf = (xs: readonly number[]): number => xs.reduce((s, x) => s + x, 0) / xs.length;

/** Groups by treatment, in the order of first appearance. */
export function groupsOf<T>(rows: readonly UnitRow<T>[]): Map<string, UnitRow<T>[]> {
  const groups = new Map<string, UnitRow<T>[]>();
  for (const row of rows) groups.set(row.treatment, [...(groups.get(row.treatment) ?? []), row]);
  return groups;
}

/** The control has to be among the treatments, and another with it. */
export function wantControl(groups: ReadonlyMap<string, unknown>, control: string): void {
  if (!groups.has(control)) {
    throw new PlainError(
      `The control “${control}” isn't among the treatments: ${[...groups.keys()].join(', ')}.`,
    );
  }
  if (groups.size < 2)
    throw new PlainError(`Only one treatment, “${control}”: a comparison needs at least two.`);
}

/** An option that has to be there. */
export function needed(name: string, value: string | undefined): string {
  if (value === undefined || value === '') throw new PlainError(`--${name} is missing.`);
  return value;
}

/** The one file a command reads. */
export function oneFile(positionals: readonly string[]): string {
  if (positionals.length !== 1) throw new PlainError('Name one file to read.');
  return positionals[0]!;
}

export const figure = (x: number | null): string => (x === null ? '–' : Number(x.toPrecision(5)).toString());
export const pText = (p: number | null): string => (p === null ? '–' : p < 0.001 ? '<0.001' : p.toFixed(3));

/** A table for reading. */
export function lines(head: readonly string[], body: readonly (readonly string[])[]): string {
  const width = head.map((h, i) => Math.max(h.length, ...body.map((r) => r[i]!.length)));
  const line = (r: readonly string[]) =>
    r.map((c, i) => (i === 0 ? c.padEnd(width[i]!) : c.padStart(width[i]!))).join('  ');
  return [line(head), width.map((w) => '-'.repeat(w)).join('  '), ...body.map(line)].join('\n');
}

/** Options every command has. */
export const common = {
  treatment: { type: 'string' },
  control: { type: 'string' },
  unit: { type: 'string' },
  alpha: { type: 'string', default: '0.05' },
  seed: { type: 'string', default: '1' },
  json: { type: 'boolean', default: false },
} as const;
