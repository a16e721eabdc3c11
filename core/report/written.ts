import type { ReviewText } from '../log/trial';
import { inFigures } from '../quantity/region';
import type { Block, Cell } from './block';
import { cellText } from './cell';

/** Cells whose text depends on how figures are written. */
const figured = new Set<Cell['type']>(['figure', 'interval', 'p', 'money']);

/** Figures in tables as text, so that whoever draws the table writes them alike. */
const settled = (blocks: readonly Block[]): Block[] =>
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

/**
 * A document made with the figures and days of the review, whatever the device it is made on writes.
 * @param finish what is done with the blocks before they are shown
 */
export const writtenIn = <T>(
  { figures = 'plain' }: Pick<ReviewText, 'figures'>,
  make: () => Block[],
  finish: (blocks: Block[]) => T,
): T => inFigures(figures, () => finish(settled(make())));
