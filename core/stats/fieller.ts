import tQuantile from '@stdlib/stats-base-dists-t-quantile';

export interface RatioInput {
  /** treatment mean and the control mean it is divided by */
  numerator: number;
  denominator: number;
  varNumerator: number;
  varDenominator: number;
  covariance: number;
  /** residual degrees of freedom, ≥ 1 */
  df: number;
  alpha: number;
}

/**
 * Fieller's interval for the ratio of two means.
 *
 * @returns low and high of the ratio, or null where the denominator isn't clearly away from zero (the
 *   interval is then open-ended)
 * Source: Fieller, J. R. Stat. Soc. B 16 (1954), 175–185.
 * @example fiellerInterval({ numerator: 2, denominator: 1, varNumerator: 0, varDenominator: 0,
 *   covariance: 0, df: 10, alpha: 0.05 }) // { low: 2, high: 2 }
 */
export function fiellerInterval(r: RatioInput): { low: number; high: number } | null {
  const t = tQuantile(1 - r.alpha / 2, r.df);
  const a = r.denominator ** 2 - t * t * r.varDenominator;
  if (!(a > 0)) return null;
  const b = r.numerator * r.denominator - t * t * r.covariance;
  const c = r.numerator ** 2 - t * t * r.varNumerator;
  const root = Math.sqrt(Math.max(0, b * b - a * c));
  return { low: (b - root) / a, high: (b + root) / a };
}
