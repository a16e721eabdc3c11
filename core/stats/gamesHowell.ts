import { studentizedRangeCdf, studentizedRangeQuantile } from './studentizedRange';
import { mean } from './moments';

/** Two groups, each with its own spread. */
interface WelchPair {
  difference: number;
  low: number;
  high: number;
  p: number;
  /** Welch–Satterthwaite degrees of freedom */
  df: number;
}

const variance = (xs: readonly number[]) => {
  const m = mean(xs);
  return xs.reduce((s, x) => s + (x - m) ** 2, 0) / (xs.length - 1);
};

/**
 * Two of several groups compared without a common spread (Games and Howell 1976): Welch's standard error and degrees of
 * freedom, the studentized range over all groups.
 *
 * @param a, b values, two or more each
 * @param groups how many groups there are in all
 * @param leastVariance what rounding alone does to a value; spreads below it weren't seen
 * @returns null where a side has one value, or neither shows a spread
 * @example gamesHowell([4, 6], [1, 3], 2, 0.05)!.df // 2, as the spreads are alike
 */
export function gamesHowell(
  a: readonly number[],
  b: readonly number[],
  groups: number,
  alpha: number,
  leastVariance = 0,
): WelchPair | null {
  if (a.length < 2 || b.length < 2) return null;
  const [va, vb] = [variance(a) / a.length, variance(b) / b.length];
  if (va + vb <= leastVariance * (1 / a.length + 1 / b.length)) return null;
  const se = Math.sqrt(va + vb);
  const df = (va + vb) ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1));
  const difference = mean(a) - mean(b);
  const half = (studentizedRangeQuantile(1 - alpha, groups, df) / Math.SQRT2) * se;
  return {
    difference,
    low: difference - half,
    high: difference + half,
    p: 1 - studentizedRangeCdf((Math.abs(difference) / se) * Math.SQRT2, groups, df),
    df,
  };
}
