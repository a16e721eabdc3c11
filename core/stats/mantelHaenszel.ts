import gammainc from '@stdlib/math-base-special-gammainc';
import { solve } from './solve';

/** k of n on both sides of one stratum. */
interface Stratum {
  treatment: { k: number; n: number };
  control: { k: number; n: number };
}

interface MantelHaenszel {
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

/**
 * The same statistic for several groups at once: how far their k lie from what their n let one expect, over strata, against
 * the hypergeometric variance (generalised Cochran–Mantel–Haenszel; Landis, Heyman and Koch 1978).
 *
 * @param strata k and n of each group, stratum by stratum
 * @returns χ² with a degree of freedom less than there are groups; null where nothing varies
 * @example generalMantelHaenszel([[{ k: 8, n: 10 }, { k: 4, n: 10 }]]) // 3.1667, mantelHaenszel's
 */
export function generalMantelHaenszel(
  strata: readonly (readonly { k: number; n: number }[])[],
): number | null {
  const df = (strata[0]?.length ?? 1) - 1;
  const excess = new Array<number>(df).fill(0);
  const variance = Array.from({ length: df }, () => new Array<number>(df).fill(0));
  for (const groups of strata) {
    const [n, k] = [groups.reduce((s, g) => s + g.n, 0), groups.reduce((s, g) => s + g.k, 0)];
    if (n < 2) continue;
    const factor = (k * (n - k)) / (n * n * (n - 1));
    for (let i = 0; i < df; i++) {
      const own = groups[i]!.n;
      excess[i]! += groups[i]!.k - (own * k) / n;
      for (let j = 0; j < df; j++) variance[i]![j]! += factor * own * ((i === j ? n : 0) - groups[j]!.n);
    }
  }
  const solved = solve(variance, excess);
  return solved === null ? null : excess.reduce((s, e, i) => s + e * solved[i]!, 0);
}
