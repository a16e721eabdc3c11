import { type Plan, matchingNames } from '../model/plan';

/** What doses were matched on, with the element where it is one. @example matchingName(plan) // 'equal K' */
const matchingName = ({ matchedOn, mixing }: Pick<Plan, 'matchedOn' | 'mixing'>): string =>
  matchedOn === 'element'
    ? `equal ${mixing.matchedElement === 'N' ? 'nitrogen' : mixing.matchedElement}`
    : matchingNames[matchedOn];

/** The same as a sentence. @example sayMatching(plan) // 'Doses were matched on equal nitrogen.' */
export const sayMatching = (plan: Pick<Plan, 'matchedOn' | 'mixing'>): string =>
  plan.matchedOn === 'asIs'
    ? 'Doses weren’t matched: each as it comes.'
    : plan.matchedOn === 'label'
      ? 'Doses are each at its label rate.'
      : `Doses were matched on ${matchingName(plan)}.`;
