import { writeCsv } from './csv';

type Cell = string | number | boolean | null;
type FieldType = 'string' | 'number' | 'integer' | 'boolean' | 'date' | 'datetime';

/** A column: name, type (with `!` where every row has a value), what it holds, and its value in a row. */
export type Column<Row> = [
  name: string,
  type: FieldType | `${FieldType}!`,
  description: string,
  value: (row: Row) => Cell,
];

/** A table of the data package: its CSV and its Table Schema. */
export interface DataTable {
  name: string;
  title: string;
  csv: string;
  schema: {
    fields: { name: string; type: FieldType; description: string; constraints?: { required: true } }[];
    primaryKey?: string | string[];
    foreignKeys?: { fields: string; reference: { resource: string; fields: string } }[];
    missingValues: string[];
  };
}

/** Makes a table of rows by its columns. */
export function table<Row>(
  name: string,
  title: string,
  columns: Column<Row>[],
  rows: readonly Row[],
  keys: { primary?: string | string[]; foreign?: Record<string, [resource: string, field: string]> } = {},
): DataTable {
  return {
    name,
    title,
    csv: writeCsv(
      columns.map(([field]) => field),
      rows.map((r) => columns.map(([, , , value]) => value(r))),
    ),
    schema: {
      fields: columns.map(([field, type, description]) => ({
        name: field,
        type: type.replace('!', '') as FieldType,
        description,
        ...(type.endsWith('!') && { constraints: { required: true as const } }),
      })),
      ...(keys.primary !== undefined && { primaryKey: keys.primary }),
      ...(keys.foreign && {
        foreignKeys: Object.entries(keys.foreign).map(([fields, [resource, field]]) => ({
          fields,
          reference: { resource, fields: field },
        })),
      }),
      missingValues: [''],
    },
  };
}

/** Table Schema's default datetime is UTC without fractions of a second. */
export const utc = (iso: string) => `${new Date(iso).toISOString().slice(0, 19)}Z`;
