/**
 * What an effect is measured on:
 * - difference: a less b, in the trait's unit
 * - ratio, odds, median, superiority: of methods for other kinds of value
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
  percent: { estimate: number; low: number | null; high: number | null } | null;
}

/** What “no effect” is on a scale. */
export const noEffect: Record<Scale, number> = {
  difference: 0,
  ratio: 1,
  odds: 1,
  median: 0,
  superiority: 0.5,
};

/** The same contrast read from the other side; for scales that turn round by changing sign. */
export function turned(c: Contrast): Contrast {
  const minus = (x: number | null) => (x === null ? null : x === 0 ? 0 : -x);
  return {
    ...c,
    a: c.b,
    b: c.a,
    estimate: minus(c.estimate)!,
    low: minus(c.high),
    high: minus(c.low),
    percent: null,
  };
}
