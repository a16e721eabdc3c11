import { columnAfter } from '~core/mixing/chartPaste';
import { chartOfUses } from '~core/mixing/chartOfUses';
import {
  type ChartColumn,
  type ChartPlace,
  type FeedingChart,
  describeChartError,
  placeOfChartError,
  usesOfChart,
} from '~core/mixing/feedingChart';
import { numberIn } from '~core/quantity/number';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import type { MeasureSystem } from '~core/quantity/units';
import type { UseInput } from './contendersForm';
import { newUse } from './newContender';
import { type UnitShape, resolveDose } from './dose';

/** A feeding chart while it is typed: figures are texts. */
export interface ChartDraft {
  columns: { stage: string; fromDay: string; strength: string }[];
  rows: FeedingChart['rows'];
  everyDays: string;
  lastDay: string;
  /** for each unit and feed, as typed */
  solution: string;
}

const digits = (x: number) => (Number.isNaN(x) ? '' : String(x));
const columnText = (c: ChartColumn): ChartDraft['columns'][number] => ({
  stage: c.stage,
  fromDay: digits(c.fromDay),
  strength: digits(c.strengthPercent),
});
const draftOf = (chart: FeedingChart, solution: string): ChartDraft => ({
  columns: chart.columns.map(columnText),
  rows: chart.rows,
  everyDays: String(chart.everyDays),
  lastDay: String(chart.lastDay),
  solution,
});

const figure = (text: string) => numberIn(text) ?? NaN;
/** The chart as far as it is typed; what isn’t a figure is NaN. */
export const chartOf = (draft: ChartDraft): FeedingChart => ({
  columns: draft.columns.map((c) => ({
    stage: c.stage.trim(),
    fromDay: figure(c.fromDay),
    strengthPercent: figure(c.strength),
  })),
  rows: draft.rows,
  everyDays: figure(draft.everyDays),
  lastDay: figure(draft.lastDay),
});

/** The draft with what a chart has more of: lines and columns. What is typed in the others stays as typed. */
export const withChart = (draft: ChartDraft, chart: FeedingChart): ChartDraft => ({
  ...draft,
  columns: chart.columns.map((c, i) => draft.columns[i] ?? columnText(c)),
  rows: chart.rows,
  lastDay: digits(chart.lastDay) || draft.lastDay,
});

/** Four weeks fed weekly, a line for each product there is, else for those nobody gets yet: what an empty chart begins with. */
function blankDraft(uses: readonly UseInput[], unfed: readonly string[] = []): ChartDraft {
  const columns: ChartColumn[] = [];
  while (columns.length < 4) columns.push(columnAfter(columns));
  const products = [...new Set(uses.map((u) => u.productId as string))];
  const solutions = new Set(uses.map((u) => u.solutionLPerUnit));
  return draftOf(
    {
      columns,
      rows: (products.length > 0 ? products : unfed.length > 0 ? unfed : ['']).map((productId) => ({
        productId,
        cells: [],
      })),
      everyDays: 7,
      lastDay: 27,
    },
    solutions.size === 1 ? [...solutions][0]! : '',
  );
}

/**
 * The chart to begin with: the doses as they stand, where one chart can say them.
 * @param unfed products that a first chart proposes
 * @returns `fits` is false where it can’t, and the chart is an empty one
 */
export function draftOfUses(
  uses: readonly UseInput[],
  products: readonly Product[],
  unfed: readonly string[] = [],
): { draft: ChartDraft; fits: boolean } {
  if (uses.length === 0) return { draft: blankDraft(uses, unfed), fits: true };
  const solutions = new Set(uses.map((u) => u.solutionLPerUnit));
  const chart = chartOfUses(
    uses.map((u) => {
      const [day, every] = [numberIn(u.fromDay), numberIn(u.everyDays)];
      const product = products.find((p) => p.id === u.productId);
      // A bare figure keeps the unit it was typed in, unless it is the one a new dose begins with.
      const bare = numberIn(u.amount) !== null && product && newUse(product).unit !== u.unit;
      return {
        productId: u.productId as string,
        amount: bare ? `${u.amount} ${u.unit}${u.solutionLPerUnit ? '/L' : ''}` : u.amount,
        stage: u.stage,
        fromDay: day ?? (every === null ? null : 0),
        everyDays: every,
        timesPerUnit: figure(u.timesPerUnit),
        strengthPercent: figure(u.strengthPercent),
      };
    }),
  );
  return chart === null || solutions.size > 1
    ? { draft: blankDraft(uses), fits: false }
    : { draft: draftOf(chart, [...solutions][0]!), fits: true };
}

/** What is wrong with a draft, and at which of its fields. */
export interface ChartFault {
  message: string;
  at: ChartPlace;
}

/**
 * The doses a chart comes to, for the contender’s form.
 *
 * @param before the doses it takes the place of: packs chosen for a product stay
 * @param unit its ground and plants, for rates by area and by the plant
 * @returns the doses, or one line that says what is wrong and where
 */
export function usesOfDraft(
  draft: ChartDraft,
  products: readonly Product[],
  before: readonly UseInput[],
  measures: MeasureSystem,
  unit: UnitShape,
): Result<UseInput[], ChartFault> {
  const made = usesOfChart(chartOf(draft));
  if (!made.ok) return err({ message: describeChartError(made.error), at: placeOfChartError(made.error) });
  const uses: UseInput[] = [];
  for (const u of made.value) {
    const row = draft.rows.findIndex((r) => r.productId === u.productId);
    const product = products.find((p) => p.id === u.productId);
    if (!product) {
      return err({ message: 'This product isn’t in the library any more.', at: { field: 'product', row } });
    }
    const use: UseInput = {
      ...newUse(product),
      packId: before.find((b) => b.productId === u.productId)?.packId ?? '',
      amount: u.amount,
      solutionLPerUnit: draft.solution,
      timesPerUnit: String(u.timesPerUnit),
      stage: u.stage,
      fromDay: String(u.fromDay),
      everyDays: String(u.everyDays),
      strengthPercent: String(u.strengthPercent),
    };
    const dose = resolveDose(use, product, measures, unit);
    if (!dose.ok && dose.error.field === 'amount') {
      const column = draft.rows[row]!.cells.findIndex((c) => c.trim() === u.amount);
      return err({
        message: `${product.name}, “${u.amount}”: ${dose.error.message}`,
        at: { field: 'rate', row, column },
      });
    }
    if (!dose.ok) return err({ message: dose.error.message, at: { field: 'solution' } });
    uses.push(use);
  }
  return ok(uses);
}
