import { choose } from './combinations';
import { chiSquareTail } from './mantelHaenszel';
import { type PermutationBlock, permutationTest } from './permutation';
import { solve } from './solve';

/** A unit with its group, its block, and what is compared of it. */
export interface Scored {
  group: number;
  block: string;
  score: number;
}

/** Up to so many arrangements every one is tried; above, χ² is close enough. */
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
 * @example leastSwapped([[4, 4]]) // 2/70
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
 * way up to 200,000, else (and of more groups) by the χ² of the groups' sums against the variance that handing out gives
 * them (Kruskal–Wallis' statistic where the scores are ranks, Friedman's where each block has one of each).
 *
 * @returns two-sided p; null where a group has no unit or no score differs inside a block
 * @example swappedApart([{ group: 0, block: '', score: 1 }, { group: 1, block: '', score: 2 }]) // 1
 */
export function swappedApart(units: readonly Scored[]): number | null {
  const groups = [...new Set(units.map((u) => u.group))];
  if (groups.length === 2) {
    const blocks = blocksOf(units, groups[0]!);
    const arrangements = blocks.reduce((c, x) => c * choose(x.a.length + x.b.length, x.a.length), 1);
    if (arrangements <= MOST_SWAPPED) return permutationTest(blocks)?.p ?? null;
  }
  return handedOutChi(units, groups);
}

function handedOutChi(units: readonly Scored[], groups: readonly number[]): number | null {
  const df = groups.length - 1;
  const sums = new Array<number>(df).fill(0);
  const variance = Array.from({ length: df }, () => new Array<number>(df).fill(0));
  for (const block of new Set(units.map((u) => u.block))) {
    const here = units.filter((u) => u.block === block);
    const n = here.length;
    if (n < 2) continue;
    const centre = here.reduce((s, u) => s + u.score, 0) / n;
    const spread = here.reduce((s, u) => s + (u.score - centre) ** 2, 0);
    const sizes = groups.map((g) => here.filter((u) => u.group === g).length);
    for (let i = 0; i < df; i++) {
      sums[i]! += here.filter((u) => u.group === groups[i]).reduce((s, u) => s + u.score - centre, 0);
      for (let j = 0; j < df; j++)
        variance[i]![j]! +=
          (spread / (n * (n - 1))) * (i === j ? sizes[i]! * (n - sizes[i]!) : -sizes[i]! * sizes[j]!);
    }
  }
  const solved = solve(variance, sums);
  return solved === null
    ? null
    : chiSquareTail(
        sums.reduce((s, x, i) => s + x * solved[i]!, 0),
        df,
      );
}
