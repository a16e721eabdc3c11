import type { Plan, Treatment } from '../model/plan';
import { listNames } from '../quantity/format';

/** The letter of the n-th contender: A, B … Z, AA … @example letterOf(27) // 'AB' */
export function letterOf(index: number): string {
  return index < 26
    ? String.fromCharCode(65 + index)
    : letterOf(Math.floor(index / 26) - 1) + letterOf(index % 26);
}

/** Contenders as the plan lists them, whatever order their letters have: who the control is goes by it. */
export const asListed = (plan: Pick<Plan, 'treatments' | 'listed'>): readonly Treatment[] =>
  plan.listed === undefined
    ? plan.treatments
    : plan.listed.flatMap((id) => plan.treatments.find((t) => t.id === id) ?? []);

/** Which letter is whose, of a plan in the order of its letters. @example sayLetters(plan) // 'A was Water and B Prova' */
export const sayLetters = (plan: Pick<Plan, 'treatments'>): string =>
  listNames(plan.treatments.map((t, i) => `${letterOf(i)}${i === 0 ? ' was' : ''} ${t.name}`));
