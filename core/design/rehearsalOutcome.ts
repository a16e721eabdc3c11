import { familiesAgainst } from '../stats/againstControl';
import { type Errors, pooledErrors } from '../stats/contrast';
import type { DesignRow, PreparedModel } from '../stats/linearModel';
import { ownSpreads } from '../stats/ownSpread';
import { studentizedRangeQuantile } from '../stats/studentizedRange';

/** How the runs of a rehearsal come out: what each analysis says, set against what is true. */

/** Shares of runs, 0 … 1. */
export interface Outcome {
  /** the best product is told from the control, and no product is told better than it */
  right: number;
  /** neither of the others */
  tooClose: number;
  /** a product is told from the control that doesn't differ from it, or on the wrong side of it */
  falseWinner: number;
}

export interface Counter {
  right: number;
  falseWinner: number;
  runs: number;
}
export const counter = (): Counter => ({ right: 0, falseWinner: 0, runs: 0 });
export const share = ({ right, falseWinner, runs }: Counter): Outcome => {
  const n = Math.max(1, runs);
  return { right: right / n, falseWinner: falseWinner / n, tooClose: (n - right - falseWinner) / n };
};

/** What one analysis of noise alone says; effects are added to it afterwards, since the model is linear. */
export interface Answer {
  means: readonly number[];
  /** standard error of the difference of two treatments */
  se: (a: number, b: number) => number;
  /** critical value of a treatment's difference from the control */
  dunnett: (a: number) => number;
  /** and of any two */
  tukey: (a: number, b: number) => number;
}

/** A model with its rows, and who is compared with whom. */
export interface Analysed {
  model: PreparedModel;
  rows: readonly DesignRow[];
  treatments: number;
  alpha: number;
  /** equals: every pair is one family, none is a control */
  peers: boolean;
}

const ranges = new Map<string, number>();
function rangeOf(k: number, df: number, alpha: number): number {
  const key = `${k}/${df}/${alpha}`;
  let value = ranges.get(key);
  if (value === undefined) ranges.set(key, (value = studentizedRangeQuantile(1 - alpha, k, df) / Math.SQRT2));
  return value;
}

function answerOf(
  means: readonly number[],
  { covariance, df }: Errors,
  spreads: 'own' | 'one',
  { treatments: k, alpha, peers }: Omit<Analysed, 'model' | 'rows'>,
): Answer {
  const known = new Float64Array(k * k);
  for (let a = 0; a < k; a++)
    for (let b = 0; b <= a; b++) known[a * k + b] = known[b * k + a] = covariance(a, b);
  const v = (a: number, b: number) => known[a * k + b]!;
  const tukey = (a: number, b: number) => rangeOf(k, df(a, b), alpha);
  const family = peers ? null : familiesAgainst(k, v, df, spreads);
  const against = means.map((_, a) => (a === 0 ? 0 : family ? family(a).criticalValue(alpha) : tukey(a, 0)));
  const se = (a: number, b: number) => Math.sqrt(Math.max(0, v(a, a) + v(b, b) - 2 * v(a, b)));
  return { means, se, dunnett: (a) => against[a]!, tukey };
}

/** What the findings' own linear model says of values; null without a residual. */
export function answer(a: Analysed, values: ArrayLike<number>): Answer | null {
  const fit = a.model.fit(values);
  const one = pooledErrors(fit);
  if (!one) return null;
  const own = ownSpreads(a.model, a.rows, values, a.treatments, a.peers ? null : 0);
  return answerOf(fit.adjustedMeans, own ?? one, own ? 'own' : 'one', a);
}

/**
 * What the same data say when every plant is taken for a unit. With as many plants in each unit the means are
 * the same; the residual is that of the units, times the plants, plus the plants' own about their unit's mean.
 *
 * @param within sum of squares of the plants about their unit's mean
 */
export function plantAnswer(
  a: Analysed,
  values: ArrayLike<number>,
  { plants, within }: { plants: number; within: number },
): Answer {
  const fit = a.model.fit(values);
  const df = fit.dfResidual + values.length * (plants - 1);
  const residualMeanSquare = (plants * fit.residualSumOfSquares + within) / df / plants;
  return answerOf(fit.adjustedMeans, pooledErrors({ ...fit, residualMeanSquare, dfResidual: df })!, 'one', a);
}

/** The treatment that is truly best, or −1 when none differs from the control for the better. */
export function bestOf(effects: readonly number[], sign: number): number {
  let best = 0;
  effects.forEach((e, i) => {
    if (e * sign > effects[best]! * sign) best = i;
  });
  return best === 0 ? -1 : best;
}

export function judge(a: Answer, effects: readonly number[], sign: number, into: Counter): void {
  const best = bestOf(effects, sign);
  const difference = (i: number, j: number) => a.means[i]! + effects[i]! - a.means[j]! - effects[j]!;
  let wrong = false;
  let bestFound = false;
  for (let i = 1; i < effects.length; i++) {
    const d = difference(i, 0);
    if (Math.abs(d) <= a.dunnett(i) * a.se(i, 0)) continue;
    if (effects[i] === 0 || Math.sign(d) !== Math.sign(effects[i]!)) wrong = true;
    else if (i === best) bestFound = true;
  }
  if (bestFound) {
    for (let i = 1; i < effects.length; i++) {
      if (i !== best && difference(i, best) * sign > a.tukey(i, best) * a.se(i, best)) bestFound = false;
    }
  }
  into.runs += 1;
  if (wrong) into.falseWinner += 1;
  else if (bestFound) into.right += 1;
}

/** Without a control: the product told better than every other is taken for the winner. */
export function judgeProducts(a: Answer, effects: readonly number[], sign: number, into: Counter): void {
  const top = a.means.map((m, i) => (m + effects[i]!) * sign);
  const winner = top.indexOf(Math.max(...top));
  const clear = top.every((v, i) => i === winner || top[winner]! - v > a.tukey(winner, i) * a.se(winner, i));
  into.runs += 1;
  if (!clear) return;
  const best = Math.max(...effects.map((e) => e * sign));
  const alone = effects.filter((e) => e * sign === best).length === 1;
  if (alone && effects[winner]! * sign === best && best > 0) into.right += 1;
  else into.falseWinner += 1;
}

/** Whether the first that is truly no different is shown to be worse by less than the margin than what it is held against. */
export function shownAsGood(
  a: Answer,
  { against, marginPercent }: { against: number; marginPercent: number },
  sign: number,
): boolean {
  const one = a.means.findIndex((_, i) => i !== against && i !== 0);
  const i = one < 0 ? a.means.findIndex((_, k) => k !== against) : one;
  const critical = against === 0 || i === 0 ? a.dunnett(Math.max(i, against)) : a.tukey(i, against);
  return (a.means[i]! - a.means[against]!) * sign - critical * a.se(i, against) > -marginPercent;
}
