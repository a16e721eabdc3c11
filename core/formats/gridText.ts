import { type Result, err, ok } from '../model/result';
import type { Area, Position } from '../model/plan';
import { numberIn } from '../quantity/number';

type GridTextError =
  | { tag: 'empty' }
  | { tag: 'notNumber'; line: number; text: string }
  | { tag: 'tooManyRows'; wanted: number }
  | { tag: 'columns'; line: number; area: string; wanted: number; found: number };

export function describeGridTextError(e: GridTextError): string {
  switch (e.tag) {
    case 'empty':
      return 'There are no figures in it.';
    case 'notNumber':
      return `Line ${e.line}: “${e.text}” isn’t a number.`;
    case 'tooManyRows':
      return `There are more lines than the ${e.wanted} rows of the areas.`;
    case 'columns':
      return `Line ${e.line}: ${e.found} figures, but ${e.area} has ${e.wanted} columns.`;
  }
}

/**
 * Reads a table of figures as copied from a spreadsheet: one line a row of the plan, place after place,
 * back row first; tabs, semicolons or spaces between figures. `-` or `–` leaves a position unread.
 *
 * @returns readings by position, or the line that isn't understood
 * @example readGridText('210 220\n190 –', [shelf of 2 × 2]) // three readings
 */
export function readGridText(
  text: string,
  areas: readonly Pick<Area, 'id' | 'name' | 'rows' | 'columns'>[],
): Result<{ position: Position; value: number }[], GridTextError> {
  const rows = areas.flatMap((area) => Array.from({ length: area.rows }, (_, row) => ({ area, row })));
  const lines = text
    .split('\n')
    .map((line, i) => ({ text: line.trim(), number: i + 1 }))
    .filter((l) => l.text !== '');
  if (lines.length === 0) return err({ tag: 'empty' });
  if (lines.length > rows.length) return err({ tag: 'tooManyRows', wanted: rows.length });
  const out: { position: Position; value: number }[] = [];
  for (const [i, line] of lines.entries()) {
    const { area, row } = rows[i]!;
    const cells = line.text.includes('\t')
      ? line.text.split('\t')
      : line.text.split(/[;\s]+/).filter(Boolean);
    if (cells.length !== area.columns) {
      return err({
        tag: 'columns',
        line: line.number,
        area: area.name,
        wanted: area.columns,
        found: cells.length,
      });
    }
    for (const [column, cell] of cells.entries()) {
      if (/^\s*[-–—]?\s*$/.test(cell)) continue;
      const value = numberIn(cell);
      if (value === null) return err({ tag: 'notNumber', line: line.number, text: cell.trim() });
      out.push({ position: { areaId: area.id, row, column }, value });
    }
  }
  return ok(out);
}
