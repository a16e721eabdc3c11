import type { ChartColumn, FeedingChart } from './feedingChart';

/** No label's chart has more weeks or lines. */
export const MOST_CHART_COLUMNS = 104;
export const MOST_CHART_ROWS = 60;
const MOST_CELL = 120;

/**
 * Puts a block copied from a spreadsheet into a chart, from a cell on: tabs between columns, one line a
 * product. Weeks are added after the last as needed, and lines without a product yet.
 *
 * @returns the chart; null when the text is one cell alone; 'tooLarge' where it is no feeding chart by its size
 * @example pasteIntoChart(chart, 0, 1, '2 mL/L\t3 mL/L') // fills two cells of the first line
 */
export function pasteIntoChart(
  chart: FeedingChart,
  row: number,
  column: number,
  text: string,
): FeedingChart | null | 'tooLarge' {
  if (text.length > MOST_CHART_COLUMNS * MOST_CHART_ROWS * MOST_CELL) return 'tooLarge';
  const block = text
    .replace(/\r/g, '')
    .replace(/\n+$/, '')
    .split('\n')
    .map((line) => line.split('\t').map((c) => c.trim().slice(0, MOST_CELL)));
  if (block.length === 1 && block[0]!.length === 1) return null;
  const columns = [...chart.columns];
  const wanted = column + block.reduce((most, cells) => Math.max(most, cells.length), 0);
  if (wanted > MOST_CHART_COLUMNS || row + block.length > MOST_CHART_ROWS) return 'tooLarge';
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
