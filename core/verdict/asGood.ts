import type { Analysis } from '../analysis/analysis';
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
}

/**
 * Reads every contrast with one treatment as non-inferiority. The simultaneous two-sided interval stands in for the
 * one-sided one, which is on the safe side.
 *
 * @param margin as a distance on the contrasts' scale; null: none was set
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
    const [from, to] = [distance(c.scale, c.low), distance(c.scale, c.high)];
    const [low, high] = higherIsBetter ? [from, to] : [-to, -from];
    const verdict =
      low > 0 ? 'better' : high < -margin ? 'short' : low > -margin ? 'asGood' : high < 0 ? 'worse' : 'open';
    return [{ id: s.name, against, verdict }];
  });
}
