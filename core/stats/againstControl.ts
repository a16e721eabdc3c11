import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import type { Comparison, VersusControl } from './comparison';
import { type Errors, contrast, percentChange } from './contrast';
import { type DunnettFamily, dunnettFamily, inSteps } from './dunnett';
import type { LinearModel } from './linearModel';

const noPercentLimits = { percentLow: null, percentHigh: null, percentTogether: null, percentBack: null };

/**
 * Dunnett's test of each treatment with the control, the first of the model.
 *
 * @param spreads whether errors are those of spreads of their own: correlations are then taken in steps
 * @returns the family a treatment's difference is held against, by its index in the model
 */
export function familiesAgainst(
  treatments: number,
  covariance: Errors['covariance'],
  df: Errors['df'],
  spreads: 'own' | 'one',
): (treatment: number) => DunnettFamily {
  const home = covariance(0, 0);
  const others = Array.from({ length: treatments - 1 }, (_, i) => i + 1);
  const base = others.map((i) => covariance(i, 0));
  const cov = (i: number, j: number) => covariance(i, j) - base[i - 1]! - base[j - 1]! + home;
  const variances = others.map((i) => cov(i, i));
  const exact = others.map((i) =>
    others.map((j) => (i === j ? 1 : cov(i, j) / Math.sqrt(variances[i - 1]! * variances[j - 1]!))),
  );
  const correlation = spreads === 'own' ? inSteps(exact) : exact;
  return (treatment) => dunnettFamily(correlation, df(treatment, 0));
}

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
  const k = modelNames.length - 1;
  const familyOf = errors && familiesAgainst(k + 1, errors.covariance, errors.df, spreads);
  const controlMean = origin + model.adjustedMeans[0]!;
  const rows = new Map<string, VersusControl>();
  let method: Comparison['dunnettMethod'] = null;
  for (let i = 1; i <= k; i++) {
    const { difference, se } = contrast(model, errors, i, 0);
    const percent = controlMean === 0 ? null : (100 * difference) / controlMean;
    const base = { name: modelNames[i]!, difference, percent };
    if (se === null || !errors || !familyOf) {
      rows.set(base.name, { ...base, low: null, high: null, p: null, ...noPercentLimits });
      continue;
    }
    const family = familyOf(i);
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
