import { rehearsedOf } from '~core/design/rehearsalInput';
import { sayRehearsed } from '~core/plan/rehearsed';
import { type TrialState, ofKind, plannedIn } from '~core/log/state';
import { localDay } from '~core/log/localDay';
import type { Room } from '../room';

/** The rehearsal that was kept last, and whether it is of the plan as it stands. */
export function keptRehearsal(state: TrialState) {
  const line = ofKind(state, 'rehearsal').at(-1);
  return line
    ? { ...line.body, on: localDay(line), isOfThisPlan: line.body.of === rehearsedOf(plannedIn(state)) }
    : null;
}

export const room: Room = {
  id: 'rehearsal',
  title: 'Rehearsal',
  order: 50,
  progress: ({ state }) => {
    const kept = keptRehearsal(state);
    if (!kept)
      return {
        howFar: '',
        progress: 'none',
        hint: 'How many units, and what the plan can see; as often as you like',
      };
    return {
      howFar: '',
      progress: kept.isOfThisPlan ? 'full' : 'half',
      hint: kept.isOfThisPlan ? sayRehearsed(kept) : 'The plan has changed since it was rehearsed',
    };
  },
};
