import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import type { Comparison, VersusControl } from './comparison';
import { type Errors, contrast, percentChange } from './contrast';
import { dunnettFamily, inSteps } from './dunnett';
import type { LinearModel } from './linearModel';

const noPercentLimits = { percentLow: null, percentHigh: null, percentTogether: null, percentBack: null };

/**
 * Every treatment against the control: simultaneous intervals and p-values by Dunnett (1964), per cent change
 * with Fieller’s interval (1954).
 *
 * @param modelNames in the model’s order; the control is the first
 * @param origin what was taken off the values before the fit
 * @param spreads whether errors are those of spreads of their own
 * @returns a row by name, and how the critical value was found; tests are null without a residual
 */
export function againstControl(
  modelNames: readonly string[],
  model: LinearModel,
  errors: Errors | null,
  { alpha, origin, spreads }: { alpha: number; origin: number; spreads: 'own' | 'one' },
): { rows: Map<string, VersusControl>; method: Comparison['dunnettMethod'] } {
  const v = errors?.covariance ?? model.unscaledCovariance;
  const k = modelNames.length - 1;
  const cov = (i: number, j: number) => v(i, j) - v(i, 0) - v(j, 0) + v(0, 0);
  const variances = Array.from({ length: k }, (_, i) => cov(i + 1, i + 1));
  const exact = variances.map((vi, i) =>
    variances.map((vj, j) => (i === j ? 1 : cov(i + 1, j + 1) / Math.sqrt(vi * vj))),
  );
  const correlation = spreads === 'own' ? inSteps(exact) : exact;
  const controlMean = origin + model.adjustedMeans[0]!;
  const rows = new Map<string, VersusControl>();
  let method: Comparison['dunnettMethod'] = null;
  for (let i = 1; i <= k; i++) {
    const { difference, se } = contrast(model, errors, i, 0);
    const percent = controlMean === 0 ? null : (100 * difference) / controlMean;
    const base = { name: modelNames[i]!, difference, percent };
    if (se === null || !errors) {
      rows.set(base.name, { ...base, low: null, high: null, p: null, ...noPercentLimits });
      continue;
    }
    const family = dunnettFamily(correlation, errors.df(i, 0));
    method = family.method;
    const critical = family.criticalValue(alpha);
    const t = Math.abs(difference) / se;
    const change = (at: number) => percentChange(model, errors, [i, 0], origin, at);
    const alone = change(tQuantile(1 - alpha / 2, errors.df(i, 0)));
    rows.set(base.name, {
      ...base,
      low: difference - critical * se,
      high: difference + critical * se,
      p: family.pValue(t),
      percentLow: alone && alone.low,
      percentHigh: alone && alone.high,
      percentTogether: change(critical),
      percentBack: percentChange(model, errors, [0, i], origin, critical),
    });
  }
  return { rows, method };
}
