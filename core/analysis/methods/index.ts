import type { ObservedType } from '../../model/traitKinds';
import type { Method } from '../analysis';
import { linearModel } from './linearModel';
import { proportions } from './proportions';
import { permutation } from './permutation';

/** Every way to analyse, the usual one first. */
export const methods: readonly Method[] = [proportions, linearModel, permutation];

/** The methods that take this kind of value, the usual one first; empty for words. */
export const methodsFor = (type: ObservedType): Method[] => methods.filter((m) => m.accepts.includes(type));

/** A method by its id; undefined for one that doesn't exist. */
export const methodOf = (id: string): Method | undefined => methods.find((m) => m.id === id);
