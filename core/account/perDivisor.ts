import type { Money } from '../quantity/money';
import type { Plan, Treatment } from '../model/plan';
import { divisorOf } from '../plan/divisor';
import { planIndex } from '../plan/planIndex';
import { mean } from '../stats/moments';
import type { Finding } from './finding';

/**
 * What the figures of a contender's units were divided by, on average: plants as they were counted, m², litres. 1 where
 * figures are per unit.
 *
 * @returns NaN where neither finding nor plan says
 * @example divisorIn(plan, finding, 'a') // 3, where two of five planted were pulled
 */
export function divisorIn(plan: Plan, { trait, units }: Finding, treatmentId: string): number {
  if (trait.per === undefined) return 1;
  const seen = units.flatMap((u) => (u.treatmentId === treatmentId && u.divisor ? [u.divisor] : []));
  if (seen.length > 0) return mean(seen);
  return mean(
    planIndex(plan)
      .unitsOf(treatmentId)
      .map((u) => divisorOf(plan, u, trait) ?? NaN),
  );
}

/** Money for a unit as money for what its result is per, so that both are of the same size. */
export const perDivisor = (
  money: Money,
  treatment: Pick<Treatment, 'id'>,
  plan: Plan,
  finding: Finding,
): Money => ({ ...money, minor: money.minor / divisorIn(plan, finding, treatment.id) });
