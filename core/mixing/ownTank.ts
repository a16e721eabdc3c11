import type { Plan } from '../model/plan';

/** Units that are vessels with a fill mark of their own. */
const vesselNouns = new Set(['device', 'machine', 'garden', 'countertop garden', 'system']);
const tankRate = /\b(tank|reservoir|fill|machine|device)s?\b/i;

/**
 * Whether solution is mixed in each unit's own tank, where nothing can be to spare, or in a batch that is handed
 * out: as Mixing says; unsaid, by rates per tank and by what a unit is.
 *
 * @example mixedInUnits({ ...plan, unitNoun: 'device' }) // true
 */
export const mixedInUnits = (plan: Pick<Plan, 'mixing' | 'treatments' | 'unitNoun'>): boolean =>
  plan.mixing.inOwnTank ??
  (vesselNouns.has(plan.unitNoun.trim().toLowerCase()) ||
    plan.treatments.some((t) =>
      t.products.some((u) => u.solutionLPerUnit !== null && tankRate.test(u.rateText)),
    ));
