import { type Result, err, ok } from '../model/result';
import type { Balance, Design, Plan } from '../model/plan';
import { positionKey, readingsOf } from '../model/positions';
import { placeTreatments } from './layOut';
import type { LayoutError } from './randomise';
import { oneOf, seededRandom } from '../stats/random';

export interface BalancedSeed {
  /** lays out the chosen draw when given to the design */
  seed: number;
  balance: Balance;
  /** spread of the draw with the first seed, per cent: what taking the first would have given */
  firstSpreadPercent: number;
}

export type BalanceError = LayoutError | { tag: 'noReadings' } | { tag: 'unread'; positions: number };

interface BalanceSearch {
  total: number;
  done: () => number;
  /** draws some more layouts; true when all are drawn */
  step: (draws: number) => boolean;
  result: () => BalancedSeed;
}

/** Of the layouts drawn, this share is good enough; one of them is taken by lot. */
const ACCEPTED_SHARE = 0.05;

/**
 * Balanced re-randomisation: draws many layouts of a design and takes, by lot, one of the twentieth whose
 * treatment means of the gradient are most alike. Chance still decides, among layouts that are fair.
 *
 * @param plan its treatments, areas and the readings of the gradient at every position used
 * @param candidates layouts drawn, e.g. 2000
 * @returns a search to be stepped through, or what is missing
 * Source: Morgan and Rubin, Annals of Statistics 40 (2012), 1263–1282 (memory).
 */
export function balanceSearch(
  plan: Pick<Plan, 'treatments' | 'areas' | 'gradient'>,
  design: Pick<Design, 'kind' | 'replicates' | 'seed' | 'settings'>,
  candidates: number,
): Result<BalanceSearch, BalanceError> {
  if (!plan.gradient || plan.gradient.readings.length === 0) return err({ tag: 'noReadings' });
  const readings = readingsOf(plan.gradient);
  const first = placeTreatments(plan, design);
  if (!first.ok) return first;
  const readingAt = (c: { area: string; row: number; column: number }) =>
    readings.get(positionKey({ areaId: c.area as never, row: c.row, column: c.column }));
  const unread = first.value.filter((c) => readingAt(c) === undefined).length;
  if (unread > 0) return err({ tag: 'unread', positions: unread });

  const spread = (seed: number): number => {
    const placed = placeTreatments(plan, { ...design, seed });
    if (!placed.ok) return Infinity;
    const sums = new Map<string, { total: number; n: number }>();
    let grand = 0;
    for (const c of placed.value) {
      const value = readingAt(c)!;
      grand += value / placed.value.length;
      const sum = sums.get(c.treatment) ?? { total: 0, n: 0 };
      sums.set(c.treatment, { total: sum.total + value, n: sum.n + 1 });
    }
    const means = [...sums.values()].map((s) => s.total / s.n);
    return grand === 0 ? 0 : (100 * (Math.max(...means) - Math.min(...means))) / Math.abs(grand);
  };
  const random = seededRandom(design.seed);
  const drawn: { seed: number; spread: number }[] = [{ seed: design.seed, spread: spread(design.seed) }];
  const firstSpreadPercent = drawn[0]!.spread;
  return ok({
    total: candidates,
    done: () => drawn.length,
    step: (draws) => {
      for (let i = 0; i < draws && drawn.length < candidates; i++) {
        const seed = random.int(0, 0x7fffffff);
        drawn.push({ seed, spread: spread(seed) });
      }
      return drawn.length >= candidates;
    },
    result: () => {
      const sorted = [...drawn].sort((a, b) => a.spread - b.spread);
      const good = sorted.slice(0, Math.max(1, Math.floor(drawn.length * ACCEPTED_SHARE)));
      const chosen = oneOf(random, good);
      return {
        seed: chosen.seed,
        balance: { candidates: drawn.length, spreadPercent: chosen.spread },
        firstSpreadPercent,
      };
    },
  });
}
