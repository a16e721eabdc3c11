import { midranks } from './ranks';

/** How likely a difference of ranks is when chance alone handed them out. */
export interface RankTail {
  /** two-sided: differences at least as far from none as the observed one */
  p: number;
  /** p of the farthest difference there could be */
  least: number;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** p of the observed and of the farthest difference from the number of ways to each. */
function tailOf(ways: Float64Array, none: number, observed: number): RankTail {
  let [total, extreme, farthest] = [0, 0, 0];
  for (const [at, count] of ways.entries()) {
    if (count === 0) continue;
    total += count;
    if (Math.abs(at - none) >= Math.abs(observed)) extreme += count;
    farthest = Math.max(farthest, Math.abs(at - none));
  }
  const most = (ways[none + farthest] ?? 0) + (farthest > 0 ? (ways[none - farthest] ?? 0) : 0);
  return { p: extreme / total, least: most / total };
}

/**
 * Exact two-sided p of the difference of two groups' mean ranks, the ranks of all groups handed out in every possible
 * way (Dunn's statistic without its normal approximation).
 *
 * Every way is counted, not drawn: rank by rank a unit joins the first group, the second, or neither.
 *
 * @param groups values of all groups
 * @returns the p of one place among them against another; ways are counted once for groups of the same sizes
 * @example rankDifferenceTails([[1, 2, 3], [4, 5, 6]])(1, 0) // { p: 0.1, least: 0.1 }
 */
export function rankDifferenceTails(
  groups: readonly (readonly number[])[],
): (of: number, against: number) => RankTail {
  const doubled = midranks(groups.flat()).map((r) => Math.round(2 * r));
  const from = (g: number) => groups.slice(0, g).reduce((s, x) => s + x.length, 0);
  const sumOf = (g: number) => doubled.slice(from(g), from(g) + groups[g]!.length).reduce((s, r) => s + r, 0);
  const counted = new Map<string, { ways: Float64Array; reach: number }>();
  return (of, against) => {
    const [m, n] = [groups[of]!.length, groups[against]!.length];
    const common = gcd(m, n);
    const [up, down] = [n / common, m / common];
    const key = `${m}/${n}`;
    const known = counted.get(key) ?? waysOf(doubled, m, n, up, down);
    counted.set(key, known);
    return tailOf(known.ways, known.reach, up * sumOf(of) - down * sumOf(against));
  };
}

/** The number of ways to each difference: rank by rank a unit joins the first group, the second, or neither. */
function waysOf(doubled: readonly number[], m: number, n: number, up: number, down: number) {
  const sorted = [...doubled].sort((x, y) => y - x);
  const top = (k: number) => sorted.slice(0, k).reduce((s, r) => s + r, 0);
  const reach = Math.max(up * top(m), down * top(n));
  const width = 2 * reach + 1;
  // ways[i][j]: i ranks went to the first group, j to the second
  const ways = Array.from({ length: (m + 1) * (n + 1) }, () => new Float64Array(width));
  ways[0]![reach] = 1;
  for (const r of doubled) {
    for (let i = m; i >= 0; i--) {
      for (let j = n; j >= 0; j--) {
        const own = ways[i * (n + 1) + j]!;
        if (i > 0) shiftInto(own, ways[(i - 1) * (n + 1) + j]!, up * r);
        if (j > 0) shiftInto(own, ways[i * (n + 1) + j - 1]!, -down * r);
      }
    }
  }
  return { ways: ways[ways.length - 1]!, reach };
}

/** Adds ways to differences that are `by` further along. */
function shiftInto(to: Float64Array, from: Float64Array, by: number): void {
  const [start, end] = [Math.max(0, -by), Math.min(from.length, from.length - by)];
  for (let d = start; d < end; d++) to[d + by]! += from[d]!;
}

/**
 * Exact two-sided p of the difference of two rank sums when ranks within each block were handed out in every possible
 * way (Friedman's statistic for a pair).
 *
 * @param blocks a row each, with one value for each treatment
 * @returns the p of one place in the rows against another; ways are counted once
 * @example rankSumTails([[1, 2], [1, 2], [1, 2]])(1, 0) // { p: 0.25, least: 0.25 }
 */
export function rankSumTails(
  blocks: readonly (readonly number[])[],
): (of: number, against: number) => RankTail {
  const ranked = blocks.map((b) => midranks(b).map((r) => Math.round(2 * r)));
  const reach = 2 * ranked.reduce((s, b) => s + b.length, 0);
  let ways = new Float64Array(2 * reach + 1);
  ways[reach] = 1;
  for (const ranks of ranked) {
    const next = new Float64Array(ways.length);
    for (const [i, x] of ranks.entries())
      for (const [j, y] of ranks.entries()) if (i !== j) shiftInto(next, ways, x - y);
    ways = next;
  }
  return (of, against) =>
    tailOf(
      ways,
      reach,
      ranked.reduce((s, b) => s + b[of]! - b[against]!, 0),
    );
}
