import type { Block } from './block';
import { cellText } from './cell';
import { printable } from '../picture/printable';

/** Cells side by side, padded to the widest of their column. */
function ledger(rows: readonly (readonly string[])[], numeric: readonly boolean[]): string {
  const widths = numeric.map((_, c) => Math.max(...rows.map((r) => [...(r[c] ?? '')].length)));
  return rows
    .map((r) =>
      numeric
        .map((n, c) => {
          const cell = r[c] ?? '';
          const room = ' '.repeat(widths[c]! - [...cell].length);
          return n ? room + cell : cell + room;
        })
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
}

/** Prints blocks as plain text, for a mail or a forum without markup; pictures are their captions. */
export function toPlainText(blocks: readonly Block[]): string {
  const print = (b: Block): string => {
    switch (b.type) {
      case 'heading':
        return b.level === 3
          ? b.text
          : `${b.text}\n${(b.level === 1 ? '=' : '-').repeat([...b.text].length)}`;
      case 'paragraph':
        return b.text;
      case 'note':
        return `${b.title} ${b.text}`;
      case 'list':
        return b.items.map((i) => `* ${i}`).join('\n');
      case 'table':
        return ledger(
          [b.columns.map((c) => c.head), ...b.rows.map((r) => r.cells.map(cellText))],
          b.columns.map((c) => c.numeric),
        );
      case 'figure':
        return `[${b.alt}]`;
    }
  };
  return `${printable(blocks.map(print).join('\n\n'))}\n`;
}
