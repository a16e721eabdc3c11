import type { Plan } from '~core/model/plan';
import type { Grid } from '~core/table/sheet';
import type { Named, Understood } from '~core/table/understood';

/** A table in hand. */
export interface Held {
  text: string;
  grid: Grid;
  name: string;
  named: Named;
}

/** What a unit is called: as its column is, where that is one word. @example nounOf(understood) // 'pot' */
export const nounOf = ({ columns }: Understood): string => {
  const name = columns.find((c) => c.role === 'unit')?.name.toLowerCase() ?? '';
  return /^[a-z]{3,12}$/.test(name) ? name : 'unit';
};

/** A plan in which of some traits the other way is better. */
export const directed = (plan: Plan, turned: readonly string[]): Plan => ({
  ...plan,
  traits: plan.traits.map((t) =>
    turned.includes(t.id) ? { ...t, direction: t.direction === 'lower' ? 'higher' : 'lower' } : t,
  ),
});
