import tCdf from '@stdlib/stats-base-dists-t-cdf';

/**
 * p of the unit that lies farthest from what its group and block let one expect: its externally studentized residual
 * against t, shared out over all units (Bonferroni; Cook and Weisberg 1982).
 *
 * @param internal its internally studentized residual
 * @param df residual degrees of freedom of the model with it
 * @returns null where no degree of freedom is left without it
 * @example outlierP(2.9, 15, 20) // 0.0169
 */
export function outlierP(internal: number, df: number, units: number): number | null {
  if (df < 2) return null;
  const rest = df - internal ** 2;
  if (rest <= 1e-12) return 0;
  const t = internal * Math.sqrt((df - 1) / rest);
  return Math.min(1, 2 * units * tCdf(-Math.abs(t), df - 1));
}

/**
 * Pearson's correlation with its two-sided p by t.
 * @returns null where one of them doesn't vary, or with fewer than three pairs
 */
export function correlation(x: readonly number[], y: readonly number[]): { r: number; p: number } | null {
  const n = x.length;
  if (n < 3) return null;
  const [mx, my] = [x, y].map((v) => v.reduce((s, a) => s + a, 0) / n) as [number, number];
  const sum = (f: (i: number) => number) => x.reduce((s, _, i) => s + f(i), 0);
  const [xx, yy] = [sum((i) => (x[i]! - mx) ** 2), sum((i) => (y[i]! - my) ** 2)];
  if (xx <= 0 || yy <= 0) return null;
  const r = sum((i) => (x[i]! - mx) * (y[i]! - my)) / Math.sqrt(xx * yy);
  if (1 - r * r <= 1e-14) return { r, p: 0 };
  return { r, p: 2 * tCdf(-Math.abs(r) * Math.sqrt((n - 2) / (1 - r * r)), n - 2) };
}
