import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';

/** k of n with its interval. */
export interface Proportion {
  k: number;
  n: number;
  /** null where n is 0 */
  proportion: number | null;
  low: number | null;
  high: number | null;
}

/**
 * A proportion with Wilson's score interval (1927).
 * @param k whole, 0 to n
 * @example wilson(7, 20, 0.05).low // 0.181…
 */
export function wilson(k: number, n: number, alpha: number): Proportion {
  if (n === 0) return { k, n, proportion: null, low: null, high: null };
  const z = normalQuantile(1 - alpha / 2, 0, 1);
  const p = k / n;
  const middle = (p + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n));
  // At the ends the limits are 0 and 1 but for rounding.
  return {
    k,
    n,
    proportion: p,
    low: k === 0 ? 0 : Math.max(0, middle - half),
    high: k === n ? 1 : Math.min(1, middle + half),
  };
}

/**
 * The difference of two proportions, a less b, by Newcombe's hybrid score (1998, method 10).
 * @returns nulls where a side has nothing
 */
export function newcombe(
  a: Proportion,
  b: Proportion,
): { difference: number | null; low: number | null; high: number | null } {
  if (a.proportion === null || b.proportion === null) return { difference: null, low: null, high: null };
  const difference = a.proportion - b.proportion;
  return {
    difference,
    low: difference - Math.hypot(a.proportion - a.low!, b.high! - b.proportion),
    high: difference + Math.hypot(a.high! - a.proportion, b.proportion - b.low!),
  };
}
