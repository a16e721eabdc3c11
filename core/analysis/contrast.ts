import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';

/**
 * What an effect is measured on:
 * - difference: a less b, in the trait's unit
 * - ratio: a as a multiple of b
 * - superiority: share of pairs, one unit of each, in which a's value is above b's; ties count half
 * - odds, median: of methods to come
 */
export type Scale = 'difference' | 'ratio' | 'odds' | 'median' | 'superiority';

/** One treatment held against another. The sign is a against b, on every screen and in every file. */
export interface Contrast {
  a: string;
  b: string;
  scale: Scale;
  estimate: number;
  /** simultaneous interval; null where nothing could be tested */
  low: number | null;
  high: number | null;
  /** adjusted for the family of comparisons; null where nothing could be tested */
  p: number | null;
  /** the same in per cent of b; null where b isn't clearly away from zero or a per cent means nothing */
  percent: Change | null;
  /** the same in per cent of a, read from b's side; left out where it hasn't been worked out */
  back?: Change | null;
  /** of a ratio: the difference in the trait's unit, both sides' uncertainty in it; left out where it hasn't been worked out */
  units?: { estimate: number; low: number; high: number };
}

/** A change in per cent with its limits. */
export interface Change {
  estimate: number;
  low: number | null;
  high: number | null;
}

/** What “no effect” is on a scale. */
export const noEffect: Record<Scale, number> = {
  difference: 0,
  ratio: 1,
  odds: 1,
  median: 0,
  superiority: 0.5,
};

/** An estimate or limit read from the other side. */
const mirrored: Record<Scale, (x: number) => number> = {
  difference: (x) => (x === 0 ? 0 : -x),
  median: (x) => (x === 0 ? 0 : -x),
  ratio: (x) => 1 / x,
  odds: (x) => 1 / x,
  superiority: (x) => 1 - x,
};

/** The same contrast read from the other side. @example turned({ a: 'A', b: 'B', scale: 'ratio', estimate: 2, … }).estimate // 0.5 */
export function turned(c: Contrast): Contrast {
  const read = mirrored[c.scale];
  return {
    ...c,
    a: c.b,
    b: c.a,
    estimate: read(c.estimate),
    low: c.high === null ? null : read(c.high),
    high: c.low === null ? null : read(c.low),
    percent:
      c.scale === 'ratio'
        ? percentOf(
            read(c.estimate),
            c.high === null ? null : read(c.high),
            c.low === null ? null : read(c.low),
          )
        : (c.back ?? null),
    ...(c.scale !== 'ratio' && { back: c.percent }),
    ...(c.units && { units: { estimate: -c.units.estimate, low: -c.units.high, high: -c.units.low } }),
  };
}

/** A ratio with its limits as a change in per cent. @example percentOf(1.24, 1.1, 1.4).estimate // 24 */
export const percentOf = (estimate: number, low: number | null, high: number | null): Change | null =>
  // Of none nothing is a per cent.
  Number.isFinite(estimate)
    ? {
        estimate: 100 * (estimate - 1),
        low: low === null ? null : 100 * (low - 1),
        high: high === null ? null : 100 * (high - 1),
      }
    : null;

/**
 * An estimate or limit as a distance from no effect that is as long on either side: ratios and odds by their logarithm.
 * @example distance('ratio', 2) // 0.693, as distance('ratio', 0.5) is −0.693
 */
export const distance = (scale: Scale, x: number): number =>
  scale === 'ratio' || scale === 'odds' ? Math.log(x) : x - noEffect[scale];

/**
 * Limits that say what p says. Where an interval and p part, the limit on the side of no effect is the test's own: as far
 * from the estimate as p puts no effect, measured on the scale's distance (test-based limits, Miettinen 1976).
 *
 * @example agreeing('difference', { estimate: 10, low: -1, high: 21 }, 0.008, 0.05) // low 2.6, high 21
 */
export function agreeing(
  scale: Scale,
  { estimate, low, high }: { estimate: number; low: number; high: number },
  p: number,
  alpha: number,
): { low: number; high: number } {
  const none = noEffect[scale];
  const refuted = p <= alpha && estimate !== none;
  if (refuted === (low > none || high < none)) return { low, high };
  const z = (tail: number) => -normalQuantile(tail / 2, 0, 1);
  const part = p >= 1 ? -1 : Math.max(-1, 1 - z(alpha) / z(p));
  const d = distance(scale, estimate) * part;
  const near = scale === 'ratio' || scale === 'odds' ? Math.exp(d) : none + d;
  return estimate > none ? { low: near, high } : { low, high: near };
}
