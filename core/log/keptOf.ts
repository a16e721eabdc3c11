import type { Trait } from '../model/plan';
import type { TrialState } from './state';

/**
 * Something that is worked out of a state for a trait, once for each key: every round of a trait asks for the same. A state
 * never changes, so it is kept as long as the state is.
 *
 * @param make works it out; of state, trait and key alone
 */
export function keptOf<Key, T>(
  make: (state: TrialState, trait: Trait, key: Key) => T,
  nameOf: (key: Key) => string,
): (state: TrialState, trait: Trait, key: Key) => T {
  const cache = new WeakMap<TrialState, WeakMap<Trait, Map<string, T>>>();
  return (state, trait, key) => {
    let ofTrait = cache.get(state);
    if (!ofTrait) cache.set(state, (ofTrait = new WeakMap()));
    let made = ofTrait.get(trait);
    if (!made) ofTrait.set(trait, (made = new Map()));
    const name = nameOf(key);
    const known = made.get(name);
    if (known !== undefined) return known;
    const value = make(state, trait, key);
    made.set(name, value);
    return value;
  };
}
