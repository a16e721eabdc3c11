import { choose } from './combinations';
import { dunnettFamily } from './dunnett';
import { type PermutationBlock, permutationTest } from './permutation';
import { studentizedRangeCdf } from './studentizedRange';

/** A unit with its group, its block, and what is compared of it. */
export interface Scored {
  group: number;
  block: string;
  score: number;
}

/** Up to so many arrangements every one is tried; above, the normal curve is close enough. */
export const MOST_SWAPPED = 200_000;

/** Units of two groups, block by block. */
function blocksOf(units: readonly Scored[], a: number): PermutationBlock[] {
  return [...new Set(units.map((u) => u.block))].map((block) => {
    const here = units.filter((u) => u.block === block);
    const of = (mine: boolean) => here.filter((u) => (u.group === a) === mine).map((u) => u.score);
    return { a: of(true), b: of(false) };
  });
}

/**
 * The least two-sided p that swapping units of two groups inside blocks can give.
 * @param sizes units of the one and the other, block by block
 * @example leastSwapped([[4, 4]]) // 0.02857
 */
export function leastSwapped(sizes: readonly (readonly [number, number])[]): number {
  const arrangements = sizes.reduce((c, [m, n]) => c * choose(m + n, m), 1);
  return Math.min(1, (sizes.every(([m, n]) => m === n) ? 2 : 1) / arrangements);
}

/** The same of two groups among these units. */
export function leastOf(units: readonly Pick<Scored, 'group' | 'block'>[], a: number, b: number): number {
  const blocks = [...new Set(units.map((u) => u.block))];
  const count = (block: string, g: number) => units.filter((u) => u.block === block && u.group === g).length;
  return leastSwapped(blocks.map((block) => [count(block, a), count(block, b)] as const));
}

/**
 * Whether groups are alike, by handing their units' scores out among them inside blocks: of two groups in every possible
 * way up to 200,000; else, and of more groups, by the largest difference of two groups' mean scores against the variance
 * that handing out gives it, the normal curve for all of them together (Dunnett's for those with one group, the studentized
 * range where every pair counts).
 *
 * @param base the group that all others are held against; null: every pair counts
 * @returns two-sided p; null where a group has no unit or no score differs inside a block
 * @example swappedApart([{ group: 0, block: '', score: 1 }, { group: 1, block: '', score: 2 }], 0) // 1
 */
export function swappedApart(units: readonly Scored[], base: number | null): number | null {
  const groups = [...new Set(units.map((u) => u.group))].sort((a, b) => a - b);
  if (groups.length === 2) {
    const blocks = blocksOf(units, groups[0]!);
    const arrangements = blocks.reduce((c, x) => c * choose(x.a.length + x.b.length, x.a.length), 1);
    if (arrangements <= MOST_SWAPPED) return permutationTest(blocks)?.p ?? null;
  }
  return largestDifference(units, groups, base);
}

/** Variance that handing scores out gives the mean scores of groups, and how far each lies from what it would be. */
function handedOut(units: readonly Scored[], groups: readonly number[]) {
  const k = groups.length;
  const place = new Map(groups.map((g, i) => [g, i]));
  const size = new Array<number>(k).fill(0);
  const blocks = new Map<string, { scores: number[]; own: number[]; sums: number[]; total: number }>();
  for (const { group, block, score } of units) {
    let here = blocks.get(block);
    if (!here)
      blocks.set(
        block,
        (here = {
          scores: [],
          own: new Array<number>(k).fill(0),
          sums: new Array<number>(k).fill(0),
          total: 0,
        }),
      );
    const i = place.get(group)!;
    size[i]! += 1;
    here.own[i]! += 1;
    here.sums[i]! += score;
    here.total += score;
    here.scores.push(score);
  }
  const means = new Array<number>(k).fill(0);
  const variance = Array.from({ length: k }, () => new Array<number>(k).fill(0));
  for (const { scores, own, sums, total } of blocks.values()) {
    const n = scores.length;
    if (n < 2) continue;
    const centre = total / n;
    const spread = scores.reduce((s, x) => s + (x - centre) ** 2, 0) / (n * (n - 1));
    for (let i = 0; i < k; i++) {
      means[i]! += (sums[i]! - own[i]! * centre) / size[i]!;
      for (let j = 0; j < k; j++) {
        const shared = i === j ? own[i]! * (n - own[i]!) : -own[i]! * own[j]!;
        variance[i]![j]! += (spread * shared) / (size[i]! * size[j]!);
      }
    }
  }
  return { means, variance };
}

function largestDifference(
  units: readonly Scored[],
  groups: readonly number[],
  base: number | null,
): number | null {
  const { means, variance: v } = handedOut(units, groups);
  const covariance = ([a, b]: readonly [number, number], [c, d]: readonly [number, number]) =>
    v[a]![c]! - v[a]![d]! - v[b]![c]! + v[b]![d]!;
  const home = base === null ? -1 : groups.indexOf(base);
  const pairs = groups.flatMap((_, i) =>
    groups.flatMap((_g, j) => ((home < 0 ? j < i : j === home && i !== home) ? [[i, j] as const] : [])),
  );
  const spread = pairs.map((c) => covariance(c, c));
  if (spread.some((x) => !(x > 1e-12))) return null;
  const largest = Math.max(
    ...pairs.map(([i, j], at) => Math.abs(means[i]! - means[j]!) / Math.sqrt(spread[at]!)),
  );
  if (home < 0) return Math.max(0, 1 - studentizedRangeCdf(largest * Math.SQRT2, groups.length, Infinity));
  const correlation = pairs.map((c, i) =>
    pairs.map((d, j) => (i === j ? 1 : covariance(c, d) / Math.sqrt(spread[i]! * spread[j]!))),
  );
  return dunnettFamily(correlation, Infinity).pValue(largest);
}
