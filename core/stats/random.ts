import { mersenne } from 'pure-rand/generator/mersenne';
import { uniformInt } from 'pure-rand/distribution/uniformInt';

/**
 * A seeded source of chance: the Mersenne Twister MT19937 (Matsumoto and Nishimura, 1998) with unbiased
 * whole numbers. (Shorter-state generators seeded with small neighbouring numbers were seen to favour some
 * orders over others.)
 * The same seed gives the same draws on every machine; the seed is part of the plan and shown.
 */
export interface Random {
  /** whole number from low to high, both included, each equally likely */
  int: (low: number, high: number) => number;
  /** 0 ≤ x < 1, 32 bits */
  uniform: () => number;
  /** standard normal, by Box and Muller (1958) */
  normal: () => number;
  /** a new array in random order, every order equally likely (Fisher–Yates) */
  shuffle: <T>(items: readonly T[]) => T[];
}

/**
 * @param seed whole number from 0 to 2³² − 1
 * @example seededRandom(7).shuffle(['A', 'B', 'C'])
 */
export function seededRandom(seed: number): Random {
  const generator = mersenne(seed | 0);
  const int = (low: number, high: number) => uniformInt(generator, low, high);
  const uniform = () => (generator.next() >>> 0) / 2 ** 32;
  return {
    int,
    uniform,
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
    shuffle: (items) => {
      const out = [...items];
      for (let i = out.length - 1; i > 0; i--) {
        const j = int(0, i);
        [out[i], out[j]] = [out[j]!, out[i]!];
      }
      return out;
    },
  };
}

/** One of some, each equally likely. @param items at least one */
export const oneOf = <T>(random: Random, items: readonly T[]): T => items[random.int(0, items.length - 1)]!;
