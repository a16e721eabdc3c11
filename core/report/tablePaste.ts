import { neutralised } from '../formats/csv';
import type { TableBlock } from './block';
import { cellText } from './cell';
import { escaped } from './html';

const isFigure = (cell: string) => /^[+−-]?\d+([.,]\d+)?$/.test(cell);

/** A table for a spreadsheet: tabs between cells, and none that a spreadsheet would run as a formula. */
export const tableText = ({ columns, rows }: TableBlock): string =>
  [columns.map((c) => c.head), ...rows.map((r) => r.cells.map(cellText))]
    .map((cells) => cells.map((c) => (isFigure(c) ? c : neutralised(c.replace(/\s+/g, ' ')))).join('\t'))
    .join('\n');

/** A table for a text or a mail, as plain HTML. */
export const tableHtml = ({ columns, rows }: TableBlock): string => {
  const row = (cells: readonly string[], tag: 'th' | 'td') =>
    `<tr>${cells.map((c, i) => `<${tag}${columns[i]?.numeric ? ' align="right"' : ''}>${escaped(c)}</${tag}>`).join('')}</tr>`;
  return `<table><thead>${row(
    columns.map((c) => c.head),
    'th',
  )}</thead><tbody>${rows.map((r) => row(r.cells.map(cellText), 'td')).join('')}</tbody></table>`;
};
