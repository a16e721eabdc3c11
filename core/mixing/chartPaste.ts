import type { ChartColumn, FeedingChart } from './feedingChart';

/**
 * Puts a block copied from a spreadsheet into a chart, from a cell on: tabs between columns, one line a
 * product. Weeks are added after the last as needed, and lines without a product yet.
 *
 * @returns the chart, or null when the text is one cell alone
 * @example pasteIntoChart(chart, 0, 1, '2 mL/L\t3 mL/L') // fills two cells of the first line
 */
export function pasteIntoChart(
  chart: FeedingChart,
  row: number,
  column: number,
  text: string,
): FeedingChart | null {
  const block = text
    .replace(/\r/g, '')
    .replace(/\n+$/, '')
    .split('\n')
    .map((line) => line.split('\t').map((c) => c.trim()));
  if (block.length === 1 && block[0]!.length === 1) return null;
  const columns = [...chart.columns];
  const wanted = column + Math.max(...block.map((cells) => cells.length));
  while (columns.length < wanted) columns.push(columnAfter(columns));
  const rows = chart.rows.map((r) => ({ ...r, cells: [...r.cells] }));
  while (rows.length < row + block.length) rows.push({ productId: '', cells: [] });
  block.forEach((cells, i) =>
    cells.forEach((cell, j) => {
      rows[row + i]!.cells[column + j] = cell;
    }),
  );
  return {
    ...chart,
    columns,
    rows: rows.map((r) => ({ ...r, cells: columns.map((_, i) => r.cells[i] ?? '') })),
    lastDay: Math.max(chart.lastDay, columns[columns.length - 1]!.fromDay + 6),
  };
}

/** The next week or stage, as long as the one before. */
export function columnAfter(columns: readonly ChartColumn[]): ChartColumn {
  const last = columns[columns.length - 1];
  if (!last) return { stage: 'week 1', fromDay: 0, strengthPercent: 100 };
  const before = columns[columns.length - 2];
  const length = before ? last.fromDay - before.fromDay : 7;
  const [, word, number] = /^(.*?)(\d+)$/.exec(last.stage) ?? [];
  return {
    stage: number === undefined ? '' : `${word}${Number(number) + 1}`,
    fromDay: last.fromDay + Math.max(1, length),
    strengthPercent: last.strengthPercent,
  };
}
