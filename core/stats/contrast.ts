import type { LinearModel } from './linearModel';

/**
 * Two treatments of a fitted model against each other.
 *
 * @param a index of the treatment in the model; `b` is taken off it
 * @returns difference of the adjusted means, and its standard error (null without a residual), both in raw units
 */
export function contrast(model: LinearModel, a: number, b: number) {
  const v = model.unscaledCovariance;
  return {
    difference: model.adjustedMeans[a]! - model.adjustedMeans[b]!,
    se:
      model.residualMeanSquare === null
        ? null
        : Math.sqrt(model.residualMeanSquare * Math.max(0, v(a, a) + v(b, b) - 2 * v(a, b))),
  };
}
