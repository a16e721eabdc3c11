import type { Plan } from '../model/plan';
import { controlOf } from './control';
import { planIndex } from './planIndex';

const better = {
  higher: 'more is better',
  lower: 'less is better',
  band: 'inside the wanted range is better',
} as const;

/**
 * What counts as winning, as the plan itself has it: for who plans in one go and writes no sentence of their own.
 *
 * @returns empty where no trait decides
 * @example winningBy(plan) // 'Cut weight decides: more is better, held against Water.'
 */
export function winningBy(plan: Plan): string {
  const trait = plan.primaryTraitId ? planIndex(plan).trait(plan.primaryTraitId) : undefined;
  if (!trait) return '';
  return `${trait.name} decides: ${better[trait.direction]}, held against ${controlOf(plan)?.name ?? 'each other'}.`;
}

/**
 * A changed plan whose sentence of what counts as winning was made by `winningBy`: it is made anew; one's own words stay.
 * @param before the plan as it was when the sentence was made
 */
export const withWinning = (before: Plan, after: Plan): Plan =>
  after.winning !== '' && after.winning === winningBy(before)
    ? { ...after, winning: winningBy(after) }
    : after;
