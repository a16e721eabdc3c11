import binomialCdf from '@stdlib/stats-base-dists-binomial-cdf';

/** Tests that ask whether samples can be told apart, with the chance of being right by guessing. */
export const discriminationKinds = {
  /** which of three is the odd one (ISO 4120) */
  triangle: { chance: 1 / 3, sides: 1, name: 'triangle', source: 'ISO 4120' },
  /** which of two is like the one given first (ISO 10399) */
  'duo-trio': { chance: 1 / 2, sides: 1, name: 'duo-trio', source: 'ISO 10399' },
  /** which of two has more, or is liked better (ISO 5495) */
  pairs: { chance: 1 / 2, sides: 2, name: 'paired comparison', source: 'ISO 5495' },
} as const;
export type DiscriminationKind = keyof typeof discriminationKinds;

export interface DiscriminationTest {
  p: number;
  /** the least number right, above chance, with p at most alpha; null: not even all would do */
  critical: number | null;
  right: number;
  of: number;
}

/** P(X ≥ k) of n guesses, as P(at most n − k wrong): small tails keep their digits. */
const upperTail = (k: number, n: number, chance: number): number => binomialCdf(n - k, n, 1 - chance);

function pOf(kind: DiscriminationKind, right: number, of: number): number {
  const { chance, sides } = discriminationKinds[kind];
  const up = upperTail(right, of, chance);
  return sides === 1 ? up : Math.min(1, 2 * Math.min(up, binomialCdf(right, of, chance)));
}

/**
 * Whether tasters told samples apart: the exact binomial against guessing, one-sided for triangle and duo-trio,
 * two-sided for pairs (twice the smaller tail).
 *
 * @param right correct answers; in pairs, answers for one of the two. Whole, 0 to `of`
 * @param of answers, at least 1
 * @example discriminationTest('triangle', 5, 6, 0.05) // { p: 0.0178, critical: 5, … }: ISO 4120 has 5 of 6
 * @throws RangeError for numbers that can't be
 */
export function discriminationTest(
  kind: DiscriminationKind,
  right: number,
  of: number,
  alpha = 0.05,
): DiscriminationTest {
  if (!Number.isInteger(of) || of < 1 || !Number.isInteger(right) || right < 0 || right > of) {
    throw new RangeError(`${right} of ${of} can't be.`);
  }
  const { chance } = discriminationKinds[kind];
  let critical: number | null = null;
  for (let k = Math.floor(of * chance) + 1; k <= of; k++) {
    if (pOf(kind, k, of) <= alpha) {
      critical = k;
      break;
    }
  }
  return { p: pOf(kind, right, of), critical, right, of };
}
