import type { Analysis, AnalysisRow } from '../analysis/analysis';
import type { Observed } from '../model/traitKinds';
import { distance, turned } from '../analysis/contrast';

/**
 * Whether one is as good as what it is held against, by the interval against the smallest difference that matters:
 * - better: clear of no effect on the good side
 * - asGood: what it may be worse by is less than matters
 * - short: worse by more than matters, even at the good end
 * - worse: clear of no effect on the bad side, by how much is open
 * - open: it may be worse by more than matters
 * - untested: nothing could be tested, or no difference that matters was set
 */
export type AsGoodVerdict = 'better' | 'asGood' | 'short' | 'worse' | 'open' | 'untested';

export interface AsGood {
  id: string;
  against: string;
  verdict: AsGoodVerdict;
  /** the difference that matters, in the trait's unit, where it isn't the finding's own: of scores and days */
  within?: number;
}

/**
 * Reads every contrast with one treatment as non-inferiority. The simultaneous two-sided interval stands in for the
 * one-sided one, which is on the safe side.
 *
 * @param margin as a distance on the contrasts' scale, in the trait's unit where they have \`units\`; null: none was set
 */
export function asGoodAs(
  { pairs, summaries }: Pick<Analysis, 'pairs' | 'summaries'>,
  against: string,
  margin: number | null,
  higherIsBetter: boolean,
): AsGood[] {
  return summaries.flatMap((s): AsGood[] => {
    if (s.name === against) return [];
    const pair = pairs.find((p) => [p.a, p.b].includes(s.name) && [p.a, p.b].includes(against));
    if (!pair) return [];
    const c = pair.a === s.name ? pair : turned(pair);
    if (margin === null || c.low === null || c.high === null)
      return [{ id: s.name, against, verdict: 'untested' }];
    const turnedEnds = (from: number, to: number) =>
      (higherIsBetter ? [from, to] : [-to, -from]) as [number, number];
    const [first, last] = turnedEnds(distance(c.scale, c.low), distance(c.scale, c.high));
    const [low, high] = c.units ? turnedEnds(c.units.low, c.units.high) : [first, last];
    const verdict =
      first > 0
        ? 'better'
        : high < -margin
          ? 'short'
          : low > -margin
            ? 'asGood'
            : last < 0
              ? 'worse'
              : 'open';
    return [{ id: s.name, against, verdict }];
  });
}

/** A unit's values moved by so much; what can't be moved (ranks, words) stays. */
const shifted = <R extends Pick<AnalysisRow, 'visits'>>(row: R, by: number): R => ({
  ...row,
  visits: row.visits.map((v) => ({
    ...v,
    samples: v.samples.map((s) => ({ ...s, observed: moved(s.observed, by) })),
  })),
});

function moved(o: Observed, by: number): Observed {
  if (o.type === 'level') return { ...o, level: o.level + by };
  if (o.type === 'event') return { ...o, day: o.day + by };
  return o;
}

/**
 * “As good as” for scores and days, which have no differences to hold against a margin: the contender is handed the
 * difference that matters, and is as good if it is then clearly ahead; short if it is clearly behind even so.
 *
 * @param analyse works the finding out on other rows by the same method
 * @param within the difference that matters, in steps or days
 */
export function asGoodByShift(
  rows: readonly AnalysisRow[],
  analyse: (rows: readonly AnalysisRow[]) => Analysis | null,
  against: string,
  within: number,
  higherIsBetter: boolean,
): AsGood[] {
  const plain = analyse(rows);
  if (plain === null) return [];
  const better = (analysis: Analysis | null, id: string): -1 | 0 | 1 | null => {
    const pair = analysis?.pairs.find((p) => [p.a, p.b].includes(id) && [p.a, p.b].includes(against));
    if (!pair || pair.low === null || pair.high === null) return null;
    const c = pair.a === id ? pair : turned(pair);
    const [low, high] = [distance(c.scale, c.low!), distance(c.scale, c.high!)];
    const side = low > 0 ? 1 : high < 0 ? -1 : 0;
    return higherIsBetter ? side : side === 0 ? 0 : side === 1 ? -1 : 1;
  };
  return plain.summaries.flatMap((s): AsGood[] => {
    if (s.name === against) return [];
    const by = higherIsBetter ? within : -within;
    const helped = analyse(rows.map((r) => (r.treatment === s.name ? shifted(r, by) : r)));
    const [as, handed] = [better(plain, s.name), better(helped, s.name)];
    const verdict: AsGoodVerdict =
      handed === null
        ? 'untested'
        : as === 1
          ? 'better'
          : handed === -1
            ? 'short'
            : handed === 1
              ? 'asGood'
              : as === -1
                ? 'worse'
                : 'open';
    return [{ id: s.name, against, verdict, within }];
  });
}
