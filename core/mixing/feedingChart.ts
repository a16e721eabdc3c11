import { type Result, err, ok } from '../model/result';

/** A week or a stage of a feeding chart: from its first day to the day before the next one’s. */
export interface ChartColumn {
  stage: string;
  fromDay: number;
  /** per cent of the rates below it: half strength for seedlings */
  strengthPercent: number;
}

/** A product’s line of the chart: its rate in every column as written; empty, a dash or 0 where it isn’t given. */
interface ChartRow {
  productId: string;
  cells: string[];
}

/** A feeding chart as makers print them: weeks or stages across, products down. */
export interface FeedingChart {
  columns: ChartColumn[];
  rows: ChartRow[];
  /** days from one feed to the next */
  everyDays: number;
  /** last day of the last column */
  lastDay: number;
}

/** One dose of the programme that a chart comes to. */
export interface ChartUse {
  productId: string;
  /** the rate as written */
  amount: string;
  stage: string;
  fromDay: number;
  everyDays: number;
  timesPerUnit: number;
  strengthPercent: number;
}

type ChartError =
  | { tag: 'noColumns' }
  | { tag: 'every' }
  | { tag: 'order'; column: number }
  | { tag: 'lastDay'; fromDay: number }
  | { tag: 'strength'; column: number }
  | { tag: 'noProduct'; row: number }
  | { tag: 'twice'; row: number }
  | { tag: 'nothing' }
  | { tag: 'unfed'; column: number };

/** Says in one plain line what is wrong with a chart; columns and rows are counted from 1. */
export function describeChartError(e: ChartError): string {
  switch (e.tag) {
    case 'noColumns':
      return 'A chart needs one week or stage at least.';
    case 'every':
      return 'Every how many days is fed? Whole days, 1 at least.';
    case 'order':
      return `The first day of column ${e.column} has to be a whole day, later than that of the column before.`;
    case 'lastDay':
      return `The last day has to be a whole day, day ${e.fromDay} or later.`;
    case 'strength':
      return `The strength of column ${e.column} has to be more than 0 %, 1000 % at most.`;
    case 'noProduct':
      return `Choose the product of line ${e.row}.`;
    case 'twice':
      return `The product of line ${e.row} has a line already.`;
    case 'nothing':
      return 'There is no rate in it yet.';
    case 'unfed':
      return `No feed falls into column ${e.column}: it begins after one feed and ends before the next.`;
  }
}

/** A field of a chart; rows and columns from 0. */
export type ChartPlace =
  | { field: 'everyDays' | 'lastDay' | 'solution' }
  | { field: 'fromDay' | 'strength'; column: number }
  | { field: 'product'; row: number }
  | { field: 'rate'; row: number; column: number };

/** The field an error is to be mended in. */
export function placeOfChartError(e: ChartError): ChartPlace {
  switch (e.tag) {
    case 'every':
      return { field: 'everyDays' };
    case 'lastDay':
      return { field: 'lastDay' };
    case 'order':
    case 'unfed':
      return { field: 'fromDay', column: e.column - 1 };
    case 'strength':
      return { field: 'strength', column: e.column - 1 };
    case 'noProduct':
    case 'twice':
      return { field: 'product', row: e.row - 1 };
    case 'noColumns':
    case 'nothing':
      return { field: 'rate', row: 0, column: 0 };
  }
}

const isBlank = (cell: string | undefined) => cell === undefined || /^\s*([-–—]|0)?\s*$/.test(cell);
const isDay = (x: number) => Number.isInteger(x) && x >= 0 && x <= 2000;

/** The days a chart feeds on, by column. */
function feedsByColumn({ columns, everyDays, lastDay }: FeedingChart): number[][] {
  const first = columns[0]!.fromDay;
  const days = Array.from(
    { length: Math.floor((lastDay - first) / everyDays) + 1 },
    (_, i) => first + i * everyDays,
  );
  return columns.map(({ fromDay }, i) => {
    const end = columns[i + 1]?.fromDay ?? Infinity;
    return days.filter((d) => d >= fromDay && d < end);
  });
}

function problemOf(chart: FeedingChart): ChartError | null {
  const { columns, rows, everyDays, lastDay } = chart;
  if (columns.length === 0) return { tag: 'noColumns' };
  if (!Number.isInteger(everyDays) || everyDays < 1 || everyDays > 2000) return { tag: 'every' };
  const unordered = columns.findIndex(
    (c, i) => !isDay(c.fromDay) || (i > 0 && c.fromDay <= columns[i - 1]!.fromDay),
  );
  if (unordered >= 0) return { tag: 'order', column: unordered + 1 };
  const { fromDay } = columns[columns.length - 1]!;
  if (!isDay(lastDay) || lastDay < fromDay) return { tag: 'lastDay', fromDay };
  const weak = columns.findIndex((c) => !(c.strengthPercent > 0 && c.strengthPercent <= 1000));
  if (weak >= 0) return { tag: 'strength', column: weak + 1 };
  const filled = rows.map((r) => r.cells.some((c) => !isBlank(c)));
  const unnamed = rows.findIndex((r, i) => filled[i] && r.productId === '');
  if (unnamed >= 0) return { tag: 'noProduct', row: unnamed + 1 };
  const twice = rows.findIndex(
    (r, i) => r.productId !== '' && rows.findIndex((x) => x.productId === r.productId) < i,
  );
  if (twice >= 0) return { tag: 'twice', row: twice + 1 };
  if (!filled.includes(true)) return { tag: 'nothing' };
  const feeds = feedsByColumn(chart);
  const unfed = columns.findIndex((_, i) => feeds[i]!.length === 0 && rows.some((r) => !isBlank(r.cells[i])));
  return unfed >= 0 ? { tag: 'unfed', column: unfed + 1 } : null;
}

/**
 * The programme a feeding chart comes to: one dose for each product and run of columns with the same rate and
 * strength.
 *
 * @param chart days of the trial; rates as written, in any words the doses take
 * @returns doses product by product, or what is wrong with the chart
 * @example weeks from day 0 and 7, “2 mL/L” in both, every 2 days to day 13
 * // one dose: from day 0, every 2 days, 7 times
 */
export function usesOfChart(chart: FeedingChart): Result<ChartUse[], ChartError> {
  const problem = problemOf(chart);
  if (problem) return err(problem);
  const { columns, rows, everyDays } = chart;
  const feeds = feedsByColumn(chart);
  return ok(
    rows.flatMap(({ productId, cells }) => {
      const uses: (ChartUse & { last: number })[] = [];
      columns.forEach(({ stage, strengthPercent }, i) => {
        if (isBlank(cells[i])) return;
        const amount = cells[i]!.trim();
        const before = uses[uses.length - 1];
        if (
          before?.last === i - 1 &&
          before.amount === amount &&
          before.strengthPercent === strengthPercent
        ) {
          before.last = i;
          before.timesPerUnit += feeds[i]!.length;
          before.stage = [before.stage.split(' to ')[0], stage].filter(Boolean).join(' to ');
          return;
        }
        const timesPerUnit = feeds[i]!.length;
        uses.push({
          productId,
          amount,
          stage,
          fromDay: feeds[i]![0]!,
          everyDays,
          timesPerUnit,
          strengthPercent,
          last: i,
        });
      });
      return uses.map(({ last: _, ...u }) => u);
    }),
  );
}
