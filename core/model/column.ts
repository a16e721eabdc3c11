export type Cell = string | number | boolean | null;
export type FieldType = 'string' | 'number' | 'integer' | 'boolean' | 'date' | 'datetime';

/** A column: name, type (with `!` where every row has a value), what it holds, and its value in a row. */
export type Column<Row> = [
  name: string,
  type: FieldType | `${FieldType}!`,
  description: string,
  value: (row: Row) => Cell,
];

/** Table Schema's default datetime is UTC without fractions of a second. */
export const utc = (iso: string) =>
  // Palazzo's own are in UTC already.
  `${(iso.endsWith('Z') && iso.length === 24 ? iso : new Date(iso).toISOString()).slice(0, 19)}Z`;
