import { choose, eachChoice } from './combinations';
import { seededRandom } from './random';

/** Units of two treatments in one block: values of the first, then of the second. */
export interface PermutationBlock {
  a: readonly number[];
  b: readonly number[];
}

interface PermutationResult {
  /** difference of the overall means, a less b */
  difference: number;
  /** how many arrangements there are, or how many were drawn */
  arrangements: number;
  exact: boolean;
  /** two-sided p of no difference */
  p: number;
  /**
   * Differences that aren't refuted at a level: the shifts of a against b under which the observed arrangement
   * isn't among the most extreme. Null where even the most extreme arrangement is likelier than the level.
   */
  interval: (alpha: number) => { low: number; high: number } | null;
}

const MOST_EXACT = 2_000_000;
const DRAWS = 100_000;

/** For each way to choose k of the values: their sum, and how many of them are among the first k. */
function allChoices(values: readonly number[], k: number): { sum: Float64Array; own: Uint16Array } {
  const count = choose(values.length, k);
  const [sum, own] = [new Float64Array(count), new Uint16Array(count)];
  eachChoice(values.length, k, (chosen, at) => {
    for (const i of chosen) {
      sum[at]! += values[i]!;
      if (i < k) own[at]! += 1;
    }
  });
  return { sum, own };
}

/** Every arrangement over all blocks: one choice in each. */
function everyArrangement(blocks: readonly PermutationBlock[]) {
  let sum: Float64Array = Float64Array.of(0);
  let own: Uint16Array = Uint16Array.of(0);
  for (const { a, b } of blocks) {
    const next = allChoices([...a, ...b], a.length);
    const [sums, owns] = [
      new Float64Array(sum.length * next.sum.length),
      new Uint16Array(sum.length * next.sum.length),
    ];
    for (let i = 0, at = 0; i < sum.length; i++) {
      for (let j = 0; j < next.sum.length; j++, at++) {
        sums[at] = sum[i]! + next.sum[j]!;
        owns[at] = own[i]! + next.own[j]!;
      }
    }
    [sum, own] = [sums, owns];
  }
  return { sum, own };
}

/** Random arrangements, the labels shuffled inside each block. */
function drawnArrangements(blocks: readonly PermutationBlock[], draws: number, seed: number) {
  const random = seededRandom(seed);
  const [sum, own] = [new Float64Array(draws), new Uint16Array(draws)];
  for (const { a, b } of blocks) {
    const values = Float64Array.from([...a, ...b]);
    const index = Uint16Array.from(values, (_, i) => i);
    for (let d = 0; d < draws; d++) {
      // A partial shuffle is enough: the first places get the labels of a.
      for (let i = 0; i < a.length; i++) {
        const j = i + Math.floor(random.uniform() * (values.length - i));
        [index[i], index[j]] = [index[j]!, index[i]!];
        sum[d]! += values[index[i]!]!;
        if (index[i]! < a.length) own[d]! += 1;
      }
    }
  }
  return { sum, own };
}

/**
 * Two treatments compared by swapping their labels between units, inside blocks where there are any: nothing is
 * assumed of the shape of the values. The statistic is the absolute difference of the overall means; ties
 * within 1e-9 of the range of the values count as extreme.
 *
 * @param blocks a block may hold one treatment alone: it then adds to the means and can't be swapped
 * @param seed of the draws, where there are more than 2,000,000 arrangements
 * @returns null where a side has no unit
 * Source: Fisher (1935); Edgington and Onghena, Randomization Tests (memory); (b + 1)/(m + 1) for draws after
 * Phipson and Smyth (2010).
 * @example permutationTest([{ a: [3, 4, 5], b: [0, 1, 2] }])?.p // 0.1: 2 of 20 arrangements
 */
export function permutationTest(blocks: readonly PermutationBlock[], seed = 1): PermutationResult | null {
  const a = blocks.flatMap((x) => x.a);
  const b = blocks.flatMap((x) => x.b);
  const [m, n] = [a.length, b.length];
  if (m === 0 || n === 0) return null;
  const total = [...a, ...b].reduce((s, x) => s + x, 0);
  const observed = a.reduce((s, x) => s + x, 0);
  const all = blocks.reduce((c, x) => c * choose(x.a.length + x.b.length, x.a.length), 1);
  const exact = all <= MOST_EXACT;
  const { sum, own } = exact ? everyArrangement(blocks) : drawnArrangements(blocks, DRAWS, seed);
  const values = [...a, ...b];
  const slack = 1e-9 * (Math.max(...values) - Math.min(...values));
  const scale = 1 / m + 1 / n;
  /** p of a's values being b's plus a shift */
  const pOfShift = (shift: number): number => {
    const rest = (total - shift * m) / n;
    const seen = Math.abs((observed - shift * m) * scale - rest) - slack;
    let extreme = 0;
    for (let i = 0; i < sum.length; i++) {
      if (Math.abs((sum[i]! - shift * own[i]!) * scale - rest) >= seen) extreme += 1;
    }
    return exact ? extreme / sum.length : (extreme + 1) / (sum.length + 1);
  };
  const difference = observed / m - (total - observed) / n;
  return {
    difference,
    arrangements: exact ? all : DRAWS,
    exact,
    p: pOfShift(0),
    interval: (alpha) => invert(pOfShift, difference, alpha, Math.max(...values) - Math.min(...values)),
  };
}

/** The shifts that aren't refuted, found by halving on either side of the estimate. */
function invert(pOfShift: (d: number) => number, estimate: number, alpha: number, range: number) {
  const reach = 2 * (range || Math.abs(estimate) || 1);
  const end = (sign: 1 | -1): number | null => {
    let [inside, outside] = [estimate, estimate + sign * reach];
    if (pOfShift(outside) > alpha) return null;
    for (let i = 0; i < 40 && Math.abs(outside - inside) > 1e-10 * reach; i++) {
      const middle = (inside + outside) / 2;
      if (pOfShift(middle) > alpha) inside = middle;
      else outside = middle;
    }
    return inside;
  };
  const [low, high] = [end(-1), end(1)];
  return low === null || high === null ? null : { low, high };
}
