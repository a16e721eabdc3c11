import { type Result, err, ok } from '../model/result';
import { type Random, seededRandom } from '../stats/random';

/** What one taster gets, in the order it is served. */
export interface Serving {
  /** from 1 */
  taster: number;
  serve: { sample: string; code: string }[];
}

type OrderError =
  | { tag: 'fewSamples' }
  | { tag: 'sameSample'; sample: string }
  | { tag: 'noTasters' }
  | { tag: 'noCodes'; wanted: number };

export const describeOrderError = (e: OrderError): string => {
  switch (e.tag) {
    case 'fewSamples':
      return 'A tasting needs two samples or more.';
    case 'sameSample':
      return `Sample “${e.sample}” is named twice.`;
    case 'noTasters':
      return 'A tasting needs a taster.';
    case 'noCodes':
      return `${e.wanted} codes would be needed; there are 900 of three digits.`;
  }
};

/** Codes of three digits, the first not 0. */
export const CODES = 900;
/** Ways of choosing rows that are looked through before the best so far is taken. */
const MOST_TRIES = 20_000;

/** 0, 1, P−1, 2, P−2, …: neighbours differ by every step once (Williams 1949). */
const zigzag = (p: number): number[] =>
  Array.from({ length: p }, (_, k) => (k % 2 === 1 ? (k + 1) / 2 : (p - k / 2) % p));

/** The rows of Williams' square; of its mirror image where P is odd and so many are wanted. */
function squares(p: number): { first: number[][]; mirror: number[][] | null } {
  const row = zigzag(p);
  const first = Array.from({ length: p }, (_, i) => row.map((a) => (a + i) % p));
  return { first, mirror: p % 2 === 0 ? null : first.map((r) => [...r].reverse()) };
}

/** How uneven neighbours are: the sum of squares of how often each ordered pair stands next to each other. */
function unevenness(counts: Int32Array): number {
  let sum = 0;
  for (const c of counts) sum += c * c;
  return sum;
}

function countNeighbours(rows: readonly (readonly number[])[], p: number): Int32Array {
  const counts = new Int32Array(p * p);
  for (const r of rows) for (let k = 0; k + 1 < p; k++) counts[r[k]! * p + r[k + 1]!]! += 1;
  return counts;
}

/** Chooses n of a square's rows so that, with those there are, neighbours come out as evenly as they can. */
function evenest(square: readonly number[][], n: number, fixed: readonly number[][], p: number): number[][] {
  let best: number[][] = square.slice(0, n);
  let least = unevenness(countNeighbours([...fixed, ...best], p));
  let tries = 0;
  const chosen: number[][] = [];
  const look = (from: number): void => {
    if (tries > MOST_TRIES) return;
    if (chosen.length === n) {
      tries += 1;
      const now = unevenness(countNeighbours([...fixed, ...chosen], p));
      if (now < least) {
        least = now;
        best = [...chosen];
      }
      return;
    }
    for (let i = from; i <= square.length - (n - chosen.length); i++) {
      chosen.push(square[i]!);
      look(i + 1);
      chosen.pop();
    }
  };
  look(0);
  return best;
}

/** Orders for so many tasters, samples as numbers from 0: whole designs first, then a part of one. */
function orders(p: number, tasters: number): number[][] {
  const { first, mirror } = squares(p);
  const whole = mirror ? [...first, ...mirror] : first;
  const rows = Array.from({ length: Math.floor(tasters / whole.length) }, () => whole).flat();
  let rest = tasters % whole.length;
  if (rest >= p && mirror) {
    rows.push(...first);
    rest -= p;
    return rest === 0 ? rows : [...rows, ...evenest(mirror, rest, rows, p)];
  }
  // Any rows of one square put each sample at most once in each place.
  return rest === 0 ? rows : [...rows, ...evenest(first, rest, rows, p)];
}

/** So many different codes of three digits in random order, up to 900. */
export function panelCodes(n: number, chance: Random): string[] {
  return chance.shuffle(Array.from({ length: CODES }, (_, i) => String(100 + i))).slice(0, n);
}

/**
 * In which order each taster gets the samples, by Williams' design (1949): each sample equally often in each place
 * and each ordered pair of neighbours equally often where tasters are a multiple of P (P even) or 2P (P odd);
 * otherwise places differ by one at most, then neighbours as evenly as rows of the design allow. Which sample stands
 * for which letter of the design, which taster gets which row and the codes are drawn from the seed.
 *
 * @param samples two or more, all different
 * @returns one serving a taster; every code of three digits is another
 * @example servingOrder(['A', 'B', 'C', 'D'], 8, 1) // each sample twice in each of four places
 */
export function servingOrder(
  samples: readonly string[],
  tasters: number,
  seed: number,
): Result<Serving[], OrderError> {
  const p = samples.length;
  if (p < 2) return err({ tag: 'fewSamples' });
  const twice = samples.find((s, i) => samples.indexOf(s) !== i);
  if (twice !== undefined) return err({ tag: 'sameSample', sample: twice });
  if (tasters < 1) return err({ tag: 'noTasters' });
  if (p * tasters > CODES) return err({ tag: 'noCodes', wanted: p * tasters });
  const chance = seededRandom(seed);
  const named = chance.shuffle(samples);
  const rows = chance.shuffle(orders(p, tasters));
  const free = panelCodes(p * tasters, chance);
  return ok(
    rows.map((row, t) => ({
      taster: t + 1,
      serve: row.map((s, k) => ({ sample: named[s]!, code: free[t * p + k]! })),
    })),
  );
}
