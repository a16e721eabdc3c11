import type { Block, Cell } from './block';
import { cellText } from './cell';

/** Cells whose text depends on how figures are written. */
const figured = new Set<Cell['type']>(['figure', 'interval', 'p', 'money']);

/** Figures in tables as text, written as figures are now: whoever draws the table later writes them alike. */
export const settled = (blocks: readonly Block[]): Block[] =>
  blocks.map((b) =>
    b.type === 'table'
      ? {
          ...b,
          rows: b.rows.map((r) => ({
            ...r,
            cells: r.cells.map((c): Cell => (figured.has(c.type) ? { type: 'text', text: cellText(c) } : c)),
          })),
        }
      : b,
  );
