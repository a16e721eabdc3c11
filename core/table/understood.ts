/** What a column of a table is for. */
export const roles = [
  'treatment',
  'response',
  'unit',
  'block',
  'crop',
  'sample',
  'day',
  'k',
  'n',
  'words',
  'ignored',
] as const;
export type Role = (typeof roles)[number];

/** What a column of results holds. */
export type ResponseKind = 'number' | 'count' | 'ratio' | 'score' | 'days';

export interface Column {
  /** as it is called, without its unit */
  name: string;
  role: Role;
  /** of a response */
  kind?: ResponseKind;
  unit?: string;
}

/** A line that isn't data, and why; rows count as a spreadsheet counts. */
export interface LeftLine {
  row: number;
  why: string;
}

/** A figure of one unit: where it stands in the file, whose it is. */
export interface Reading {
  row: number;
  treatment: string;
  /** null: the table names none, each line is one of its own */
  unit: string | null;
  block: string | null;
  column: string | null;
  crop: string | null;
  sample: string | null;
  /** days from the first; null: the table has none */
  day: number | null;
  trait: number;
  /** null: nothing stands there, though the unit does */
  value: number | null;
  /** of k of n */
  n?: number;
}

/** A trait of the table. */
export interface TableTrait {
  name: string;
  unit: string;
  kind: ResponseKind;
}

/** A table as it was understood. */
export interface Understood {
  shape: 'long' | 'wide';
  decimal: '.' | ',';
  /** lines of data in the file, before a wide table is turned */
  rows: number;
  left: LeftLine[];
  control: string | null;
  columns: Column[];
  traits: TableTrait[];
  /** levels in the order of the file, the control first */
  treatments: string[];
  readings: Reading[];
}

/** What isn't told by the table itself. */
export interface TableFault {
  /** what is wrong, a plain sentence that says what to name */
  text: string;
}

/** Columns named by hand, and the control. */
export interface Named {
  treatment?: string;
  response?: string;
  unit?: string;
  block?: string;
  control?: string;
}
