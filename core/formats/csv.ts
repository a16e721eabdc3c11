import Papa from 'papaparse';
import { type Result, err, ok } from '../model/result';

export interface Table {
  columns: string[];
  /** cells as written, trimmed; row i stands on line i + 2 of the file */
  rows: string[][];
  delimiter: string;
}

export type TableError =
  { tag: 'empty' } | { tag: 'duplicateColumn'; column: string } | { tag: 'malformed'; message: string };

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

/**
 * Reads delimited text with a heading line; comma, semicolon or tab is found from the text itself.
 * @param text the file's text, with or without a byte-order mark
 */
export function readTable(text: string): Result<Table, TableError> {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const fatal = parsed.errors.find((e) => e.type === 'Quotes');
  if (fatal) return err({ tag: 'malformed', message: `${fatal.message} (row ${(fatal.row ?? 0) + 1})` });
  const [head, ...body] = parsed.data;
  if (!head || body.length === 0) return err({ tag: 'empty' });
  const columns = head.map((c) => c.trim());
  const twice = columns.find((c, i) => c !== '' && columns.indexOf(c) !== i);
  if (twice !== undefined) return err({ tag: 'duplicateColumn', column: twice });
  return ok({ columns, rows: body.map((r) => r.map((c) => c.trim())), delimiter: parsed.meta.delimiter });
}

/** Writes rows as CSV; text that a spreadsheet would take for a formula is defused. */
export function writeCsv(
  columns: readonly string[],
  rows: readonly (string | number | boolean | null)[][],
): string {
  return `${Papa.unparse({ fields: [...columns], data: rows.map((r) => [...r]) }, { newline: '\n', escapeFormulae: true })}\n`;
}
