import type { Plan } from '../model/plan';
import type { Costs } from '../say/costWords';
import type { Finding } from '../account/finding';
import { heldWith } from '../account/outcomes';
import { divisorIn } from '../account/perDivisor';
import type { Verdict } from './verdict';

/** What a contender's gain took beyond what the control took; minor units. */
export interface ExtraOver {
  id: string;
  /** gain in the trait's unit, per unit or what its figures are per */
  gain: number;
  /** each extra gram, and its limits: the ends of the gain's interval */
  each: number;
  low: number;
  high: number;
}

/**
 * What each extra gram over the control took with all that is counted, contender by contender; none where no gain was
 * shown. Money and grams are of the same size: both per unit, or both per plant.
 *
 * @example extraCosts(costs, verdict, finding, plan) // [{ id: 'A', gain: 10, each: 1, low: 0.8, high: 1.3 }]
 */
export function extraCosts(costs: Costs, verdict: Verdict, finding: Finding, plan: Plan): ExtraOver[] {
  const share = (id: string) => (costs.get(id)?.perUnit.minor ?? NaN) / divisorIn(plan, finding, id);
  return verdict.lines.flatMap((l) => {
    const id = l.treatment.id as string;
    const held = heldWith(finding, id);
    const gain = held?.contrast;
    const over = held ? share(id) - share(held.control) : NaN;
    if (!gain || gain.scale !== 'difference' || l.perExtra?.worst == null || Number.isNaN(over)) return [];
    const ends = [over / gain.high!, over / gain.low!];
    return [
      {
        ...{ id, gain: gain.estimate, each: over / gain.estimate },
        ...{ low: Math.min(...ends), high: Math.max(...ends) },
      },
    ];
  });
}
