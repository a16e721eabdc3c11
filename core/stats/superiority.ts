import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { cliffsDelta } from './ranks';
import { wilson } from './proportion';

/** In what share of pairs one is ahead, ties counting half. */
interface Superiority {
  share: number;
  low: number;
  high: number;
}

/** Where a rising function crosses nought between two ends. */
function crossing(f: (x: number) => number, from: number, to: number): number {
  let [low, high] = [from, to];
  for (let i = 0; i < 100; i++) {
    const middle = (low + high) / 2;
    if (f(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Share of all pairs, one unit of each, in which a's value is above b's (ties half), with Newcombe's interval (2006,
 * Statistics in Medicine 25, method 5; from memory): the Hanley–McNeil variance at the limit itself, with the mean of the
 * two numbers in place of each.
 *
 * @example superiority([2, 3], [1, 2], 0.05).share // 0.875
 */
export function superiority(a: readonly number[], b: readonly number[], alpha: number): Superiority {
  const share = (cliffsDelta(a, b) + 1) / 2;
  const z = normalQuantile(1 - alpha / 2, 0, 1);
  const [m, n] = [a.length, b.length];
  const others = (m + n) / 2 - 1;
  const half = (s: number) =>
    z * Math.sqrt((s * (1 - s) * (1 + others * ((1 - s) / (2 - s) + s / (1 + s)))) / (m * n));
  return {
    share,
    low: share === 0 ? 0 : crossing((s) => s + half(s) - share, 0, share),
    high: share === 1 ? 1 : crossing((s) => s - half(s) - share, share, 1),
  };
}

/**
 * The same where units are paired by block: the share of blocks in which a is ahead of b, ties half, with Wilson's
 * interval (1927).
 * @param pairs a and b of each block
 */
export function superiorityInBlocks(
  pairs: readonly (readonly [number, number])[],
  alpha: number,
): Superiority {
  const ahead = pairs.reduce((s, [a, b]) => s + (Math.sign(a - b) + 1) / 2, 0);
  const { low, high } = wilson(ahead, pairs.length, alpha);
  return { share: ahead / pairs.length, low: low!, high: high! };
}
