import type { Comparison, PairDifference } from '../stats/comparison';

/**
 * What a pair's simultaneous interval says:
 * - better: one is ahead, the interval is clear of zero (`matters` when it is also clear of the smallest
 *   difference that matters)
 * - alike: any difference is smaller than the one that matters
 * - tooClose: the interval covers a difference that matters on both sides
 * - leaning: not separated, but one side is ruled out
 * - untested: one unit each
 */
export type PairVerdict = 'better' | 'alike' | 'tooClose' | 'leaning' | 'untested';

export interface PairOutcome {
  a: string;
  b: string;
  verdict: PairVerdict;
  /** the better of the two for `better`, the one that may be better for `leaning` */
  ahead: string | null;
  /** for `better`: even the low end of the interval is at least the difference that matters */
  matters: boolean;
}

/**
 * Reads one pair's interval against the smallest difference that matters.
 * @param smallest in the trait's unit, > 0; null when none was set: then only zero counts
 */
export function pairOutcome(
  pair: PairDifference,
  smallest: number | null,
  higherIsBetter: boolean,
): PairOutcome {
  const { a, b } = pair;
  if (pair.low === null || pair.high === null)
    return { a, b, verdict: 'untested', ahead: null, matters: false };
  // turned so that positive is good for a
  const [low, high] = higherIsBetter ? [pair.low, pair.high] : [-pair.high, -pair.low];
  const d = smallest ?? 0;
  if (low > 0 || high < 0) {
    const ahead = low > 0 ? a : b;
    return { a, b, verdict: 'better', ahead, matters: Math.min(Math.abs(low), Math.abs(high)) >= d };
  }
  if (d > 0 && low > -d && high < d) return { a, b, verdict: 'alike', ahead: null, matters: false };
  if (low <= -d && high >= d) return { a, b, verdict: 'tooClose', ahead: null, matters: false };
  return { a, b, verdict: 'leaning', ahead: high >= d ? a : b, matters: false };
}

export interface RankedTreatment {
  name: string;
  /** 1 + the number of treatments that are clearly better; null when nothing was tested */
  rank: number | null;
  /** shares its rank with others */
  tied: boolean;
  /** treatments it can't be told from */
  notSeparatedFrom: string[];
}

/** Ranks with ties: a treatment's rank is one more than the number of treatments clearly better than it. */
export function rankTreatments(
  comparison: Comparison,
  pairs: readonly PairOutcome[],
  higherIsBetter: boolean,
): RankedTreatment[] {
  const sign = higherIsBetter ? -1 : 1;
  const byMean = [...comparison.treatments].sort((x, y) => sign * (x.adjustedMean - y.adjustedMean));
  const tested = comparison.anova !== null;
  const ranked = byMean.map(({ name }) => {
    const own = pairs.filter((p) => p.a === name || p.b === name);
    const better = own.filter((p) => p.verdict === 'better' && p.ahead !== name).length;
    return {
      name,
      rank: tested ? 1 + better : null,
      tied: false,
      notSeparatedFrom: own.filter((p) => p.verdict !== 'better').map((p) => (p.a === name ? p.b : p.a)),
    };
  });
  return ranked
    .map((r) => ({ ...r, tied: r.rank !== null && ranked.filter((o) => o.rank === r.rank).length > 1 }))
    .sort((x, y) => (x.rank ?? 0) - (y.rank ?? 0));
}
