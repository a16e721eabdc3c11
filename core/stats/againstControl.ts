import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import type { Comparison, PercentLimits, VersusControl } from './comparison';
import { contrast } from './contrast';
import { dunnettFamily } from './dunnett';
import { fiellerInterval } from './fieller';
import type { LinearModel } from './linearModel';

const noPercentLimits = { percentLow: null, percentHigh: null, percentTogether: null };

/**
 * Every treatment against the control: simultaneous intervals and p-values by Dunnett (1964), per cent change
 * with Fieller’s interval (1954).
 *
 * @param modelNames in the model’s order; the control is the first
 * @param origin what was taken off the values before the fit
 * @returns a row by name, and how the critical value was found; tests are null without a residual
 */
export function againstControl(
  modelNames: readonly string[],
  model: LinearModel,
  alpha: number,
  origin: number,
): { rows: Map<string, VersusControl>; method: Comparison['dunnettMethod'] } {
  const v = model.unscaledCovariance;
  const ms = model.residualMeanSquare;
  const k = modelNames.length - 1;
  const cov = (i: number, j: number) => v(i, j) - v(i, 0) - v(j, 0) + v(0, 0);
  const variances = Array.from({ length: k }, (_, i) => cov(i + 1, i + 1));
  const correlation = variances.map((vi, i) =>
    variances.map((vj, j) => (i === j ? 1 : cov(i + 1, j + 1) / Math.sqrt(vi * vj))),
  );
  const family = ms === null ? null : dunnettFamily(correlation, model.dfResidual);
  const critical = family?.criticalValue(alpha) ?? null;
  const controlMean = origin + model.adjustedMeans[0]!;
  const rows = new Map<string, VersusControl>();
  for (let i = 1; i <= k; i++) {
    const { difference, se } = contrast(model, i, 0);
    const percent = controlMean === 0 ? null : (100 * difference) / controlMean;
    const base = { name: modelNames[i]!, difference, percent };
    if (se === null || !family || critical === null) {
      rows.set(base.name, { ...base, low: null, high: null, p: null, ...noPercentLimits });
      continue;
    }
    const t = Math.abs(difference) / se;
    const percentLimits = (at: number): PercentLimits | null => {
      const ratio = fiellerInterval({
        numerator: controlMean + difference,
        denominator: controlMean,
        varNumerator: ms! * v(i, i),
        varDenominator: ms! * v(0, 0),
        covariance: ms! * v(i, 0),
        critical: at,
      });
      return ratio && { low: (ratio.low - 1) * 100, high: (ratio.high - 1) * 100 };
    };
    const alone = percentLimits(tQuantile(1 - alpha / 2, model.dfResidual));
    rows.set(base.name, {
      ...base,
      low: difference - critical * se,
      high: difference + critical * se,
      p: family.pValue(t),
      percentLow: alone && alone.low,
      percentHigh: alone && alone.high,
      percentTogether: percentLimits(critical),
    });
  }
  return { rows, method: family?.method ?? null };
}
