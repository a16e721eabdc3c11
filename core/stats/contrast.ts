import type { PercentChange } from './comparison';
import { fiellerInterval } from './fieller';
import type { LinearModel } from './linearModel';

/** How far adjusted means and their differences are known: what limits and tests are made of. */
export interface Errors {
  /** covariance of two adjusted means */
  covariance: (a: number, b: number) => number;
  /** degrees of freedom the standard error of a difference was seen with; of one mean where both are the same */
  df: (a: number, b: number) => number;
}

/** One spread for all: the residual mean square; null without a residual. */
export const pooledErrors = (model: LinearModel): Errors | null => {
  const { residualMeanSquare: ms, unscaledCovariance: v, dfResidual } = model;
  return ms === null ? null : { covariance: (a, b) => ms * v(a, b), df: () => dfResidual };
};

/**
 * Two treatments of a fitted model against each other.
 *
 * @param errors null where there is nothing to test against
 * @param a index of the treatment in the model; `b` is taken off it
 * @returns difference of the adjusted means, and its standard error (null without errors), both in raw units
 */
export function contrast(model: LinearModel, errors: Errors | null, a: number, b: number) {
  const v = errors?.covariance;
  return {
    difference: model.adjustedMeans[a]! - model.adjustedMeans[b]!,
    se: v ? Math.sqrt(Math.max(0, v(a, a) + v(b, b) - 2 * v(a, b))) : null,
  };
}

/**
 * The difference of two treatments in per cent of the second, with Fieller's limits (1954).
 *
 * @param origin what was taken off the values before the fit
 * @param critical of the test that is turned round
 * @returns null where the second isn't clearly away from zero
 */
export function percentChange(
  model: LinearModel,
  { covariance: v }: Errors,
  [a, b]: readonly [number, number],
  origin: number,
  critical: number,
): PercentChange | null {
  const base = origin + model.adjustedMeans[b]!;
  const difference = model.adjustedMeans[a]! - model.adjustedMeans[b]!;
  // The ratio of the difference to the second: it keeps its digits however far from zero both lie.
  const ratio = fiellerInterval({
    ...{ numerator: difference, denominator: base, critical },
    covariance: v(a, b) - v(b, b),
    varNumerator: v(a, a) + v(b, b) - 2 * v(a, b),
    varDenominator: v(b, b),
  });
  return ratio && { estimate: (100 * difference) / base, low: 100 * ratio.low, high: 100 * ratio.high };
}
