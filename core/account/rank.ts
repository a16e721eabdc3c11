import type { Analysis } from '../analysis/analysis';
import { type Contrast, distance } from '../analysis/contrast';

/**
 * What a pair's simultaneous interval says:
 * - better: one is ahead, the interval is clear of no effect (`matters` when it is also clear of the smallest
 *   difference that matters)
 * - alike: any difference is smaller than the one that matters
 * - tooClose: the interval covers a difference that matters on both sides
 * - leaning: not separated, but one side is ruled out
 * - untested: nothing could be tested
 */
type PairVerdict = 'better' | 'alike' | 'tooClose' | 'leaning' | 'untested';

export interface PairOutcome {
  a: string;
  b: string;
  verdict: PairVerdict;
  /** the better of the two for `better`, the one that may be better for `leaning` */
  ahead: string | null;
  /** for `better`: even the low end of the interval is at least the difference that matters */
  matters: boolean;
  /** for `better`: even the high end is less than the difference that matters */
  tooSmall?: true;
}

/** A pair that nothing could be tested between. */
export const untestedPair = ({ a, b }: Pick<Contrast, 'a' | 'b'>): PairOutcome => ({
  ...{ a, b, verdict: 'untested', ahead: null, matters: false },
});

/**
 * Reads one contrast against the smallest difference that matters.
 * @param smallest as a distance on the contrast's scale (see \`distance\`), in the trait's unit where the contrast has
 * \`units\`, > 0; null when none was set: then only no effect counts
 */
export function pairOutcome(c: Contrast, smallest: number | null, higherIsBetter: boolean): PairOutcome {
  const { a, b } = c;
  if (c.low === null || c.high === null) return untestedPair(c);
  const turnedEnds = (from: number, to: number) =>
    (higherIsBetter ? [from, to] : [-to, -from]) as [number, number];
  // turned so that positive is good for a
  const [first, last] = turnedEnds(distance(c.scale, c.low), distance(c.scale, c.high));
  const [low, high] = c.units && smallest !== null ? turnedEnds(c.units.low, c.units.high) : [first, last];
  const d = smallest ?? 0;
  if (first > 0 || last < 0) {
    const [ahead, least, most] = first > 0 ? [a, low, high] : [b, -high, -low];
    return {
      ...{ a, b, verdict: 'better', ahead, matters: least >= d },
      ...(most < d && { tooSmall: true as const }),
    };
  }
  if (d > 0 && low > -d && high < d) return { a, b, verdict: 'alike', ahead: null, matters: false };
  if (low <= -d && high >= d) return { a, b, verdict: 'tooClose', ahead: null, matters: false };
  return { a, b, verdict: 'leaning', ahead: high >= d ? a : b, matters: false };
}

export interface RankedTreatment {
  name: string;
  /** 1 + the number of treatments that are clearly better; null where it couldn't be tested against all on its ground */
  rank: number | null;
  /** shares its rank with others */
  tied: boolean;
  /** treatments it was tested against and can't be told from */
  notSeparatedFrom: string[];
  /** treatments nothing could be tested against */
  untestedAgainst: string[];
}

/**
 * Ranks with ties: a treatment's rank is one more than the number of treatments clearly better than it.
 * @param pairs those that are asked: of treatments on one ground
 * @param single treatments of one unit: they have no rank, and the others' doesn't wait for them
 */
export function rankTreatments(
  analysis: Pick<Analysis, 'summaries' | 'spread'>,
  pairs: readonly PairOutcome[],
  higherIsBetter: boolean,
  single: ReadonlySet<string> = new Set(),
): RankedTreatment[] {
  const sign = higherIsBetter ? -1 : 1;
  const byFigure = [...analysis.summaries].sort((x, y) => sign * (x.estimate - y.estimate));
  const own = (name: string) => pairs.filter((p) => p.a === name || p.b === name);
  const others = (name: string, which: (p: PairOutcome) => boolean) =>
    own(name)
      .filter(which)
      .map((p) => (p.a === name ? p.b : p.a));
  const ranked = byFigure.map(({ name }) => {
    const untestedAgainst = others(name, (p) => p.verdict === 'untested');
    const better = others(name, (p) => p.verdict === 'better' && p.ahead !== name).length;
    const wanted = others(name, (p) => !single.has(p.a === name ? p.b : p.a));
    const tested =
      analysis.spread === 'shown' &&
      !single.has(name) &&
      wanted.length > 0 &&
      !wanted.some((o) => untestedAgainst.includes(o));
    return {
      name,
      rank: tested ? 1 + better : null,
      tied: false,
      notSeparatedFrom: others(name, (p) => p.verdict !== 'better' && p.verdict !== 'untested'),
      untestedAgainst,
    };
  });
  const level = (a: RankedTreatment, b: RankedTreatment) =>
    a !== b && a.rank === b.rank && others(a.name, () => true).includes(b.name);
  return ranked
    .map((r) => ({ ...r, tied: r.rank !== null && ranked.some((o) => level(r, o)) }))
    .sort((x, y) => (x.rank ?? Infinity) - (y.rank ?? Infinity) || 0);
}
