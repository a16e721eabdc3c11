import { dunnettFamily } from '../stats/dunnett';
import type { PreparedModel } from '../stats/linearModel';
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
  dunnett: number;
  tukey: number;
}

const critical = new Map<string, number>();
function criticalOf(test: 'dunnett' | 'tukey', k: number, df: number, alpha: number): number {
  const key = `${test}/${k}/${df}/${alpha}`;
  let value = critical.get(key);
  if (value === undefined) {
    const equal = Array.from({ length: k - 1 }, (_, i) =>
      Array.from({ length: k - 1 }, (_, j) => (i === j ? 1 : 0.5)),
    );
    value =
      test === 'dunnett'
        ? dunnettFamily(equal, df).criticalValue(alpha)
        : studentizedRangeQuantile(1 - alpha, k, df) / Math.SQRT2;
    critical.set(key, value);
  }
  return value;
}

export function answer(
  model: PreparedModel,
  values: ArrayLike<number>,
  k: number,
  alpha: number,
): Answer | null {
  const fit = model.fit(values);
  const ms = fit.residualMeanSquare;
  if (ms === null) return null;
  const v = fit.unscaledCovariance;
  return {
    means: fit.adjustedMeans,
    se: (a, b) => Math.sqrt(ms * Math.max(0, v(a, a) + v(b, b) - 2 * v(a, b))),
    dunnett: criticalOf('dunnett', k, fit.dfResidual, alpha),
    tukey: criticalOf('tukey', k, fit.dfResidual, alpha),
  };
}

/**
 * What the same data say when every plant is taken for a unit. With as many plants in each unit the means are
 * the same; the residual is that of the units, times the plants, plus the plants' own about their unit's mean.
 *
 * @param within sum of squares of the plants about their unit's mean
 */
export function plantAnswer(
  model: PreparedModel,
  values: ArrayLike<number>,
  { k, alpha, plants, within }: { k: number; alpha: number; plants: number; within: number },
): Answer {
  const fit = model.fit(values);
  const n = values.length;
  const df = fit.dfResidual + n * (plants - 1);
  const ms = (plants * fit.residualSumOfSquares + within) / df;
  const v = fit.unscaledCovariance;
  return {
    means: fit.adjustedMeans,
    se: (a, b) => Math.sqrt((ms / plants) * Math.max(0, v(a, a) + v(b, b) - 2 * v(a, b))),
    dunnett: criticalOf('dunnett', k, df, alpha),
    tukey: criticalOf('tukey', k, df, alpha),
  };
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
    if (Math.abs(d) <= a.dunnett * a.se(i, 0)) continue;
    if (effects[i] === 0 || Math.sign(d) !== Math.sign(effects[i]!)) wrong = true;
    else if (i === best) bestFound = true;
  }
  if (bestFound) {
    for (let i = 1; i < effects.length; i++) {
      if (i !== best && difference(i, best) * sign > a.tukey * a.se(i, best)) bestFound = false;
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
  const clear = top.every((v, i) => i === winner || top[winner]! - v > a.tukey * a.se(winner, i));
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
  const critical = against === 0 || i === 0 ? a.dunnett : a.tukey;
  return (a.means[i]! - a.means[against]!) * sign - critical * a.se(i, against) > -marginPercent;
}
