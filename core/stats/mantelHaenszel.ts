import gammainc from '@stdlib/math-base-special-gammainc';

/** k of n on both sides of one stratum. */
export interface Stratum {
  treatment: { k: number; n: number };
  control: { k: number; n: number };
}

export interface MantelHaenszel {
  /** of treatment against control; null when infinite or unknown */
  oddsRatio: number | null;
  chiSquare: number | null;
  p: number | null;
}

/** The upper tail of chi-square, small ones with all their digits: the upper incomplete gamma function. */
export const chiSquareTail = (x: number, df: number): number =>
  x <= 0 ? 1 : gammainc(x / 2, df / 2, true, true);

/**
 * Cochran–Mantel–Haenszel test over strata, without continuity correction, and the common odds ratio of Mantel and
 * Haenszel (1959). A stratum with one side alone says nothing.
 */
export function mantelHaenszel(strata: readonly Stratum[]): MantelHaenszel {
  let [excess, variance, up, down] = [0, 0, 0, 0];
  for (const { treatment: t, control: c } of strata) {
    const total = t.n + c.n;
    if (t.n === 0 || c.n === 0) continue;
    const k = t.k + c.k;
    excess += t.k - (t.n * k) / total;
    variance += (t.n * c.n * k * (total - k)) / (total * total * (total - 1));
    up += (t.k * (c.n - c.k)) / total;
    down += ((t.n - t.k) * c.k) / total;
  }
  const chiSquare = variance > 0 ? excess ** 2 / variance : null;
  return {
    oddsRatio: down > 0 ? up / down : null,
    chiSquare,
    p: chiSquare === null ? null : chiSquareTail(chiSquare, 1),
  };
}
