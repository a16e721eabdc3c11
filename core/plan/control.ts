import type { Plan, Treatment } from '../model/plan';
import { asListed } from './letters';

/** The control that others are compared with: untreated first, else base, else the reference. */
export function controlOf(plan: Pick<Plan, 'treatments' | 'listed'>): Treatment | null {
  const treatments = asListed(plan);
  for (const role of ['untreated', 'base', 'reference'] as const) {
    const control = treatments.find((t) => t.role === role);
    if (control) return control;
  }
  return null;
}

/** Equals are compared and none of them is a control: which is best can be told, not whether it beats nothing. */
export const comparesPeers = (plan: Pick<Plan, 'treatments' | 'peers' | 'listed'>): boolean =>
  plan.peers === true && controlOf(plan) === null;

/** What differences are counted from: the control; among equals the first, without being more than the others. */
export const countedFrom = (plan: Pick<Plan, 'treatments' | 'peers' | 'listed'>): Treatment | null =>
  controlOf(plan) ?? (plan.peers ? (asListed(plan)[0] ?? null) : null);

/**
 * What an “as good as” is held against: the reference where there is one, else the control.
 * @returns null for another kind of question, or where there is neither
 */
export function heldAgainst(plan: Pick<Plan, 'treatments' | 'asks' | 'listed'>): Treatment | null {
  if (plan.asks !== 'asGood') return null;
  return asListed(plan).find((t) => t.role === 'reference') ?? controlOf(plan);
}

/** What per cents of a trial are of: equals have no control. @example ofWhat(plan) // 'of the control' */
export const ofWhat = (plan: Pick<Plan, 'treatments' | 'peers'>): string =>
  comparesPeers(plan) ? 'of the mean of all' : 'of the control';
