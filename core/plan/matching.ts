import { type Plan, matchingNames } from '../model/plan';

/** What doses were matched on, with the element where it is one. @example matchingName(plan) // 'equal K' */
export const matchingName = ({ matchedOn, mixing }: Pick<Plan, 'matchedOn' | 'mixing'>): string =>
  matchedOn === 'element'
    ? `equal ${mixing.matchedElement === 'N' ? 'nitrogen' : mixing.matchedElement}`
    : matchingNames[matchedOn];
