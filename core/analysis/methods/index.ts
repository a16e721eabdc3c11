import { kindOf } from '../../model/traitKinds';
import type { Trait } from '../../model/plan';
import type { Method } from '../analysis';
import { counts } from './counts';
import { daysUntil } from './daysUntil';
import { linearModel } from './linearModel';
import { logLinear } from './logLinear';
import { permutation } from './permutation';
import { proportions } from './proportions';
import { scores } from './scores';
import { welch } from './welch';

export { countOf } from './proportions';

/** Every way to analyse, the usual one of each kind of value before the others. */
export const methods: readonly Method[] = [
  proportions,
  counts,
  daysUntil,
  linearModel,
  welch,
  logLinear,
  permutation,
  scores,
];

/** Of these the rank tests come first. */
const byRanks = new Set(['level', 'rank']);

/** The methods that take this trait, the usual one first; empty for words. */
export function methodsFor(trait: Trait): Method[] {
  const { observes } = kindOf(trait);
  const fitting = methods.filter((m) => m.accepts.includes(observes) && (m.takes?.(trait) ?? true));
  return byRanks.has(observes)
    ? [...fitting].sort((a, b) => Number(b === scores) - Number(a === scores))
    : fitting;
}

/** A method by its id; undefined for one that doesn't exist. */
export const methodOf = (id: string): Method | undefined => methods.find((m) => m.id === id);
