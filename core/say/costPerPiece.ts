import { formatMoney } from '../quantity/money';
import { dayPicks, gradesOf, pickDays, pickTotals } from '../log/picks';
import type { TrialState } from '../log/state';
import { listNames } from '../quantity/format';
import { planIndex } from '../plan/planIndex';
import type { Costs } from './costWords';

/**
 * What a piece that counts as yield took, contender by contender: all that its units took over all the pieces they gave,
 * on days every unit was looked at. Nothing where nothing is picked.
 *
 * @example sayPerPiece(state, costs, nameOf) // ['A piece that counts as yield took: A €0.12 and B €0.20; Water gave none.']
 */
export function sayPerPiece(state: TrialState, costs: Costs, nameOf: (id: string) => string): string[] {
  const whole = new Set(pickDays(state).flatMap((d) => (d.missing.length === 0 ? [d.day] : [])));
  if (whole.size === 0) return [];
  const byUnit = dayPicks(state);
  const [priced, none]: [string[], string[]] = [[], []];
  for (const [id, cost] of costs) {
    const units = planIndex(state.plan).unitsOf(id);
    const pieces = units.reduce((sum, u) => {
      const picks = (byUnit.get(u.id) ?? []).filter((p) => whole.has(p.day));
      return sum + (pickTotals(picks, gradesOf(state.plan))?.count ?? 0);
    }, 0);
    if (pieces === 0) none.push(nameOf(id));
    else {
      const { minor, currency } = cost.perUnit;
      priced.push(`${nameOf(id)} ${formatMoney({ minor: (minor * units.length) / pieces, currency })}`);
    }
  }
  if (priced.length === 0) return [];
  const empty = none.length === 0 ? '' : `; ${listNames(none)} gave none`;
  return [`A piece that counts as yield took: ${listNames(priced)}${empty}.`];
}
