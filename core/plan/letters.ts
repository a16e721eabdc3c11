import type { Plan } from '../model/plan';
import { listNames } from '../quantity/format';

/** The letter of the n-th contender: A, B … Z, AA … @example letterOf(27) // 'AB' */
export function letterOf(index: number): string {
  return index < 26
    ? String.fromCharCode(65 + index)
    : letterOf(Math.floor(index / 26) - 1) + letterOf(index % 26);
}

/** Which letter is whose, of a plan in the order of its letters. @example sayLetters(plan) // 'A was Water and B Prova' */
export const sayLetters = (plan: Pick<Plan, 'treatments'>): string =>
  listNames(plan.treatments.map((t, i) => `${letterOf(i)}${i === 0 ? ' was' : ''} ${t.name}`));
