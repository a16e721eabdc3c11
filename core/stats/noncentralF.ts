import fCdf from '@stdlib/stats-base-dists-f-cdf';

/**
 * Distribution function of the noncentral F, as a Poisson mixture of central ones.
 *
 * @param f value, ≥ 0
 * @param df1 numerator degrees of freedom, ≥ 1
 * @param df2 denominator degrees of freedom, ≥ 1
 * @param lambda noncentrality, ≥ 0
 * Source: Abramowitz and Stegun (1964), 26.6.18; checked against R's pf(ncp = ).
 * @example noncentralFCdf(3.0983912, 3, 20, 5) // 0.631
 */
export function noncentralFCdf(f: number, df1: number, df2: number, lambda: number): number {
  if (f <= 0) return 0;
  const half = lambda / 2;
  const spread = 12 * Math.sqrt(half + 1) + 30;
  const from = Math.max(0, Math.floor(half - spread));
  const to = Math.ceil(half + spread);
  // log of the Poisson weight of the first term, summed up rather than taken from a gamma function
  let logWeight = -half;
  for (let j = 1; j <= from; j++) logWeight += Math.log(half / j);
  let sum = 0;
  for (let j = from; j <= to; j++) {
    if (j > from) logWeight += Math.log(half / j);
    const weight = half === 0 ? (j === 0 ? 1 : 0) : Math.exp(logWeight);
    if (weight > 1e-18) sum += weight * fCdf((f * df1) / (df1 + 2 * j), df1 + 2 * j, df2);
  }
  return Math.min(1, sum);
}
