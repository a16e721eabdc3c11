import tCdf from '@stdlib/stats-base-dists-t-cdf';
import { figuresOf } from '../analysis/figures';
import { moreIsBetter } from '../analysis/goodness';
import { type Plan, doseAmount, kindOf } from '../model/plan';
import { controlOf } from '../plan/control';
import { planIndex } from '../plan/planIndex';
import { formatFigure, formatP, listNames } from '../quantity/format';
import { prepareLinearModel } from '../stats/linearModel';
import type { Finding, FindingInput } from '../account/finding';
import { outcomeOf } from '../account/outcomes';

/** Three or more doses of one product, the control without it among them where there is one. */
interface DoseLadder {
  product: string;
  unit: string;
  /** lowest first */
  doses: { id: string; dose: number }[];
}

/** Ladders of doses in a plan: contenders that differ in how much of one product they are given, and in no other product. */
export function doseLadders(plan: Plan): DoseLadder[] {
  const control = controlOf(plan);
  const byProduct = new Map<string, { id: string; dose: number; unit: string; rest: string }[]>();
  for (const t of plan.treatments) {
    for (const use of t.products) {
      const rest = JSON.stringify(
        t.products.filter((u) => u !== use).map((u) => [u.productId, doseAmount(u), u.unit]),
      );
      const own = byProduct.get(use.productId) ?? [];
      own.push({
        id: t.id,
        dose: doseAmount(use),
        unit: `${use.unit}${use.solutionLPerUnit === null ? '' : '/L'}`,
        rest,
      });
      byProduct.set(use.productId, own);
    }
  }
  return [...byProduct].flatMap(([productId, uses]) => {
    const same = uses.filter((u) => u.unit === uses[0]!.unit && u.rest === uses[0]!.rest);
    const without =
      control && control.products.length === 0 && uses[0]!.rest === '[]'
        ? [{ id: control.id as string, dose: 0 }]
        : [];
    const doses = [...without, ...same.map(({ id, dose }) => ({ id, dose }))].sort((a, b) => a.dose - b.dose);
    const levels = new Set(doses.map((d) => d.dose));
    if (levels.size < 3 || levels.size < doses.length) return [];
    const product = planIndex(plan).product(productId)?.name ?? 'the product';
    return [{ product, unit: uses[0]!.unit, doses }];
  });
}

/** Whether more of a product gave more, and from which dose on nothing better was shown. */
interface DoseTrend {
  ladder: DoseLadder;
  /** per unit of dose, in the trait's unit */
  slope: number;
  p: number;
  /** the least dose that isn't told from the best one; null where the best isn't told from any */
  enough: number | null;
  best: number;
}

/**
 * Linear trend over the doses as a contrast of adjusted means, tested against the residual of the whole trial.
 * @returns null where doses have no values, or nothing is left to test against
 */
export function doseTrend(input: FindingInput, finding: Finding, ladder: DoseLadder): DoseTrend | null {
  const { rows, trait } = input;
  if (!['continuous', 'count'].includes(kindOf(trait).observes) || finding.analysis.spread !== 'shown')
    return null;
  const present = ladder.doses.filter((d) => rows.some((r) => r.treatment === d.id));
  if (present.length < 3) return null;
  const names = [...new Set(rows.map((r) => r.treatment))];
  const blocks = [...new Set(rows.map((r) => r.block))];
  const columns = [...new Set(rows.map((r) => r.column))];
  const model = prepareLinearModel(
    rows.map((r) => ({
      treatment: names.indexOf(r.treatment),
      block: blocks.indexOf(r.block),
      column: columns.indexOf(r.column),
    })),
    names.length,
    blocks.length,
    columns.length,
  );
  if (!model.ok) return null;
  const fit = model.value.fit(figuresOf(rows, trait));
  if (fit.residualMeanSquare === null || fit.residualMeanSquare <= 0) return null;
  const middle = present.reduce((s, d) => s + d.dose, 0) / present.length;
  const squares = present.reduce((s, d) => s + (d.dose - middle) ** 2, 0);
  const weights = present.map((d) => ({ at: names.indexOf(d.id), w: (d.dose - middle) / squares }));
  const slope = weights.reduce((s, { at, w }) => s + w * fit.adjustedMeans[at]!, 0);
  const variance = weights.reduce(
    (s, a) => s + weights.reduce((x, b) => x + a.w * b.w * fit.unscaledCovariance(a.at, b.at), 0),
    0,
  );
  const t = slope / Math.sqrt(fit.residualMeanSquare * variance);
  const sign = moreIsBetter(trait) ? 1 : -1;
  const mean = (id: string) => sign * finding.analysis.summaries.find((s) => s.name === id)!.estimate;
  const top = present.reduce((a, b) => (mean(b.id) > mean(a.id) ? b : a));
  const told = (id: string) => outcomeOf(finding, id, top.id)?.verdict === 'better';
  const level = present.find((d) => d.id === top.id || !told(d.id))!;
  return {
    ladder: { ...ladder, doses: present },
    slope,
    p: 2 * tCdf(-Math.abs(t), fit.dfResidual),
    enough: present.some((d) => d.id !== top.id && told(d.id)) ? level.dose : null,
    best: top.dose,
  };
}

/**
 * @example sayDoseTrend(t, finding) // 'More Prova gave more (p = 0.002, 0 to 10 mL/L). From 5 mL/L on nothing better was shown.'
 */
export function sayDoseTrend(
  { ladder, slope, p, enough, best }: DoseTrend,
  { trait, analysis }: Finding,
): string {
  const [least, most] = [ladder.doses[0]!.dose, ladder.doses.at(-1)!.dose];
  const span = `${listNames([least, most].map(dose))} ${ladder.unit}`.replace(' and ', ' to ');
  const how = p < 0.001 ? 'p < 0.001' : `p = ${formatP(p)}`;
  const better = slope > 0 === moreIsBetter(trait);
  const trend =
    p > analysis.alpha
      ? `Over ${span} of ${ladder.product} no straight trend was shown (${how}).`
      : `More ${ladder.product} gave ${slope > 0 ? 'more' : 'less'}${better ? '' : ', which is worse'} (${how}, ${span}).`;
  const from =
    enough === null
      ? ''
      : enough === most
        ? ` The largest dose was better than every other.`
        : ` From ${dose(enough)} ${ladder.unit} on nothing better was shown${best < most ? `; the best mean was at ${dose(best)} ${ladder.unit}` : ''}.`;
  return `${trend}${from}`;
}

const dose = (d: number): string =>
  formatFigure(d, d === Math.round(d) ? 0 : 2).replace(/0$/, (z) => (d === Math.round(d) ? z : ''));
