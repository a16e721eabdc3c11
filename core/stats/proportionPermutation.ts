import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import { choose, eachChoice } from './combinations';
import { seededRandom } from './random';

/** One unit: k of n. */
export interface KOfN {
  k: number;
  n: number;
}
/** Units of treatment and control in one stratum. */
export interface UnitStratum {
  a: readonly KOfN[];
  b: readonly KOfN[];
}

const MOST_EXACT = 2_000_000;
const DRAWS = 100_000;

/** Sums of k and n over every choice of m of the units. */
function choices(units: readonly KOfN[], m: number): { k: Float64Array; n: Float64Array } {
  const count = choose(units.length, m);
  const [k, n] = [new Float64Array(count), new Float64Array(count)];
  eachChoice(units.length, m, (chosen, at) => {
    for (const i of chosen) {
      k[at]! += units[i]!.k;
      n[at]! += units[i]!.n;
    }
  });
  return { k, n };
}

/**
 * Two treatments' proportions compared by swapping whole units, each with its k and n, inside strata: pots are the
 * units, not cuttings. The statistic is the absolute difference of the proportions pooled over all; ties within 1e-9
 * of the range of the units' proportions count as extreme. Exact up to 2,000,000 arrangements, else 100,000 seeded
 * draws with (b + 1)/(m + 1) (Phipson and Smyth 2010).
 *
 * @returns null where a side has fewer than two units in all, or nothing was counted on one
 * @example proportionPermutation([{ a: [{ k: 5, n: 5 }, { k: 4, n: 5 }], b: [{ k: 0, n: 5 }, { k: 1, n: 5 }] }]) // 0.333…
 */
export function proportionPermutation(strata: readonly UnitStratum[], seed = 1): number | null {
  const [a, b] = [strata.flatMap((s) => s.a), strata.flatMap((s) => s.b)];
  if (a.length < 2 || b.length < 2) return null;
  const all = [...a, ...b];
  const [totalK, totalN] = [all.reduce((s, u) => s + u.k, 0), all.reduce((s, u) => s + u.n, 0)];
  const statistic = (k: number, n: number): number =>
    n === 0 || n === totalN ? 0 : Math.abs(k / n - (totalK - k) / (totalN - n));
  const [ownK, ownN] = [a.reduce((s, u) => s + u.k, 0), a.reduce((s, u) => s + u.n, 0)];
  if (ownN === 0 || ownN === totalN) return null;
  const shares = all.flatMap((u) => (u.n > 0 ? [u.k / u.n] : []));
  const seen = statistic(ownK, ownN) - 1e-9 * (Math.max(...shares) - Math.min(...shares));
  const arrangements = strata.reduce((c, s) => c * choose(s.a.length + s.b.length, s.a.length), 1);
  if (arrangements <= MOST_EXACT) {
    let [k, n] = [Float64Array.of(0), Float64Array.of(0)];
    for (const s of strata) {
      const next = choices([...s.a, ...s.b], s.a.length);
      const [ks, ns] = [
        new Float64Array(k.length * next.k.length),
        new Float64Array(k.length * next.k.length),
      ];
      for (let i = 0, at = 0; i < k.length; i++) {
        for (let j = 0; j < next.k.length; j++, at++) {
          ks[at] = k[i]! + next.k[j]!;
          ns[at] = n[i]! + next.n[j]!;
        }
      }
      [k, n] = [ks, ns];
    }
    let extreme = 0;
    for (let i = 0; i < k.length; i++) if (statistic(k[i]!, n[i]!) >= seen) extreme += 1;
    return extreme / k.length;
  }
  const random = seededRandom(seed);
  let extreme = 0;
  const pools = strata.map((s) => ({ units: [...s.a, ...s.b], m: s.a.length }));
  for (let d = 0; d < DRAWS; d++) {
    let [k, n] = [0, 0];
    for (const { units, m } of pools) {
      // A partial shuffle is enough: the first places are the treatment's.
      for (let i = 0; i < m; i++) {
        const j = i + Math.floor(random.uniform() * (units.length - i));
        [units[i], units[j]] = [units[j]!, units[i]!];
        k += units[i]!.k;
        n += units[i]!.n;
      }
    }
    if (statistic(k, n) >= seen) extreme += 1;
  }
  return (extreme + 1) / (DRAWS + 1);
}

/** How many ways units of these strata can be swapped. */
export const swaps = (strata: readonly UnitStratum[]): number =>
  strata.reduce((c, s) => c * choose(s.a.length + s.b.length, s.a.length), 1);

/**
 * The same test where there are too many ways to try: each unit's k less what its n lets one expect, summed over the
 * treatment, against the variance that swapping gives it (the normal limit of the permutation distribution).
 *
 * @returns null where a side has fewer than two units in all, or nothing varies
 * @example proportionScores([{ a: [{ k: 5, n: 5 }, { k: 4, n: 5 }], b: [{ k: 0, n: 5 }, { k: 1, n: 5 }] }]) // 0.0929
 */
export function proportionScores(strata: readonly UnitStratum[]): number | null {
  const [a, b] = [strata.flatMap((s) => s.a), strata.flatMap((s) => s.b)];
  if (a.length < 2 || b.length < 2) return null;
  const all = [...a, ...b];
  const share = all.reduce((s, u) => s + u.k, 0) / all.reduce((s, u) => s + u.n, 0);
  const over = (u: KOfN) => u.k - u.n * share;
  let [sum, variance] = [0, 0];
  for (const s of strata) {
    const scores = [...s.a, ...s.b].map(over);
    const [m, total] = [s.a.length, scores.length];
    const mean = scores.reduce((x, y) => x + y, 0) / total;
    sum += s.a.reduce((x, u) => x + over(u), 0) - m * mean;
    if (total > 1) {
      const spread = scores.reduce((x, y) => x + (y - mean) ** 2, 0);
      variance += ((m * (total - m)) / (total * (total - 1))) * spread;
    }
  }
  return variance > 1e-12 ? 2 * normalCdf(-Math.abs(sum) / Math.sqrt(variance), 0, 1) : null;
}
