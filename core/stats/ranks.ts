import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { chiSquareTail } from './mantelHaenszel';

/**
 * Ranks from 1, ties sharing their mean.
 * @example midranks([10, 20, 20]) // [1, 2.5, 2.5]
 */
export function midranks(values: readonly number[]): number[] {
  const order = values.map((v, i) => ({ v, i })).sort((x, y) => x.v - y.v);
  const ranks = new Array<number>(values.length);
  for (let from = 0; from < order.length;) {
    let to = from;
    while (to + 1 < order.length && order[to + 1]!.v === order[from]!.v) to += 1;
    for (let k = from; k <= to; k++) ranks[order[k]!.i] = (from + to) / 2 + 1;
    from = to + 1;
  }
  return ranks;
}

/** Σ(t³ − t) over ties of t equal values. */
function tieSum(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
  return [...counts.values()].reduce((s, t) => s + t ** 3 - t, 0);
}

interface RankTest {
  /** null where all values are equal */
  statistic: number | null;
  df: number;
  p: number | null;
}

/** Mean ranks over all groups together, in their order. */
export function meanRanks(groups: readonly (readonly number[])[]): number[] {
  const ranks = midranks(groups.flat());
  let at = 0;
  return groups.map((g) => {
    const own = ranks.slice(at, at + g.length);
    at += g.length;
    return own.reduce((s, r) => s + r, 0) / own.length;
  });
}

/**
 * Kruskal–Wallis test (1952), corrected for ties.
 * @param groups two or more, none empty
 */
export function kruskalWallis(groups: readonly (readonly number[])[]): RankTest {
  const all = groups.flat();
  const [n, df] = [all.length, groups.length - 1];
  const correction = 1 - tieSum(all) / (n ** 3 - n);
  if (n < 2 || correction <= 0) return { statistic: null, df, p: null };
  const means = meanRanks(groups);
  const sum = groups.reduce((s, g, i) => s + g.length * (means[i]! - (n + 1) / 2) ** 2, 0);
  const h = ((12 / (n * (n + 1))) * sum) / correction;
  return { statistic: h, df, p: chiSquareTail(h, df) };
}

/**
 * Dunn's comparison (1964) of two groups by their mean ranks among all, corrected for ties, two-sided, unadjusted.
 * @param of, against places of the groups
 * @returns z of `of` against `against`; nulls where all values are equal
 */
export function dunn(
  groups: readonly (readonly number[])[],
  of: number,
  against: number,
): { z: number | null; p: number | null } {
  const all = groups.flat();
  const n = all.length;
  const variance = (n * (n + 1)) / 12 - tieSum(all) / (12 * (n - 1));
  if (n < 2 || variance <= 1e-12) return { z: null, p: null };
  const means = meanRanks(groups);
  const z =
    (means[of]! - means[against]!) /
    Math.sqrt(variance * (1 / groups[of]!.length + 1 / groups[against]!.length));
  return { z, p: 2 * normalCdf(-Math.abs(z), 0, 1) };
}

/**
 * Cliff's delta (1993): in how many pairs a is ahead less in how many it is behind, as a share of all pairs.
 * @example cliffsDelta([2, 3], [1, 2]) // 0.75
 */
export function cliffsDelta(a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  for (const x of a) for (const y of b) sum += Math.sign(x - y);
  return sum / (a.length * b.length);
}

export interface Friedman extends RankTest {
  rankSums: number[];
}

/**
 * Friedman's test (1937), corrected for ties.
 * @param tasters a row each, with one value for each treatment
 */
export function friedman(tasters: readonly (readonly number[])[]): Friedman {
  const treatments = tasters[0]?.length ?? 0;
  const rows = tasters.map(midranks);
  const rankSums = Array.from({ length: treatments }, (_, j) => rows.reduce((s, r) => s + r[j]!, 0));
  const [b, k] = [tasters.length, treatments];
  const ties = tasters.reduce((s, r) => s + tieSum(r), 0);
  const spread = rankSums.reduce((s, r) => s + (r - (b * (k + 1)) / 2) ** 2, 0);
  const scale = b * k * (k + 1) - ties / (k - 1);
  const df = k - 1;
  if (!(scale > 0)) return { rankSums, statistic: null, df, p: null };
  const chiSquare = (12 * spread) / scale;
  return { rankSums, statistic: chiSquare, df, p: chiSquareTail(chiSquare, df) };
}

/**
 * The least significant difference of two rank sums (ISO 8587): z(1 − α/2)·√(J·P·(P + 1)/6).
 * @param tasters J @param treatments P
 */
export const leastRankDifference = (tasters: number, treatments: number, alpha: number): number =>
  normalQuantile(1 - alpha / 2, 0, 1) * Math.sqrt((tasters * treatments * (treatments + 1)) / 6);

/** The middle value; the mean of the two middle ones. */
export function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length / 2;
  return sorted.length % 2 === 1 ? sorted[Math.floor(middle)]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
