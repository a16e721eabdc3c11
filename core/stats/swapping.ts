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
  const blocks = new Map<string, [number, number]>();
  for (const { group, block } of units) {
    if (group !== a && group !== b) continue;
    const counts = blocks.get(block) ?? [0, 0];
    counts[group === a ? 0 : 1] += 1;
    blocks.set(block, counts);
  }
  return leastSwapped([...blocks.values()]);
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
  const place: number[] = [];
  groups.forEach((g, i) => (place[g] = i));
  const numbers = new Map<string, number>();
  const blockOf = units.map(({ block }) => {
    let b = numbers.get(block);
    if (b === undefined) numbers.set(block, (b = numbers.size));
    return b;
  });
  const blocks = numbers.size;
  const size = new Float64Array(k);
  const own = new Float64Array(blocks * k);
  const sums = new Float64Array(blocks * k);
  const [n, total] = [new Float64Array(blocks), new Float64Array(blocks)];
  units.forEach(({ group, score }, at) => {
    const [b, i] = [blockOf[at]!, place[group]!];
    size[i]! += 1;
    own[b * k + i]! += 1;
    sums[b * k + i]! += score;
    n[b]! += 1;
    total[b]! += score;
  });
  const squares = new Float64Array(blocks);
  units.forEach(({ score }, at) => {
    const b = blockOf[at]!;
    squares[b]! += (score - total[b]! / n[b]!) ** 2;
  });
  const means = new Float64Array(k);
  const variance = Array.from({ length: k }, () => new Float64Array(k));
  for (let b = 0; b < blocks; b++) {
    const here = n[b]!;
    if (here < 2) continue;
    const [centre, spread] = [total[b]! / here, squares[b]! / (here * (here - 1))];
    for (let i = 0; i < k; i++) {
      const mine = own[b * k + i]!;
      means[i]! += (sums[b * k + i]! - mine * centre) / size[i]!;
      const line = variance[i]!;
      const each = (spread * mine) / size[i]!;
      for (let j = 0; j < i; j++) line[j]! -= (each * own[b * k + j]!) / size[j]!;
      line[i]! += (each * (here - mine)) / size[i]!;
    }
  }
  variance.forEach((line, i) => {
    for (let j = 0; j < i; j++) variance[j]![i] = line[j]!;
  });
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
