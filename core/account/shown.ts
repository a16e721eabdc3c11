import { inLetterOrder, maskedPlan, placeholderKey } from '../design/blinding';
import { type TrialState, shownWith } from '../log/state';
import type { BlindKey } from '../log/trial';

/** A trial as its screens, papers and sentences show it. */
export interface Shown {
  /** names are hidden: the trial is blind and its codes aren't opened */
  blind: boolean;
  /** blind, and the key isn't here: letters aren't those of the bottle tags */
  keyMissing: boolean;
  /** the truth, its contenders in the order of their letters once the codes are open */
  state: TrialState;
  /** what may be shown: under codes while the trial is blind */
  shown: TrialState;
}

const known = new WeakMap<TrialState, { key: BlindKey | null; shown: Shown }>();

/**
 * What of a trial may be shown, and under which letters. A contender has one letter and tile for ever: drawn from the key
 * where the trial is blind, the same before and after the opening, which adds the name; by the plan's order otherwise.
 *
 * @param folded the state as plan and log give it
 * @param key the codes; null where this device doesn't have them: a stand-in, the same on every device, takes its place
 */
export function shownOf(folded: TrialState, key: BlindKey | null): Shown {
  const before = known.get(folded);
  if (before && before.key === key) return before.shown;
  const shown = made(folded, key);
  known.set(folded, { key, shown });
  return shown;
}

function made(folded: TrialState, key: BlindKey | null): Shown {
  const { plan } = folded;
  if (plan.blinding === 'open') return { blind: false, keyMissing: false, state: folded, shown: folded };
  // A trial without its key stays blind: taking the key away hides names, it doesn't show them.
  const blind = folded.revealed === null;
  const codes = key ?? placeholderKey(plan);
  const state = blind ? folded : shownWith(folded, inLetterOrder(plan, codes));
  return {
    blind,
    keyMissing: blind && key === null,
    state,
    shown: blind ? shownWith(folded, maskedPlan(plan, codes)) : state,
  };
}
