import type { Cell, Column, FieldType } from '../model/column';
import type { FilledTable } from '../log/kinds/kind';
import { writeCsv } from './csv';

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

/** A table of the log's own kind of line, as the package writes it. */
export const filledTable = ({ name, title, columns, rows }: FilledTable): DataTable =>
  table(
    name,
    title,
    columns.map(({ name: field, type, description }, i): Column<Cell[]> => [
      field,
      type,
      description,
      (row) => row[i]!,
    ]),
    rows,
  );
