import { isTaken } from '~core/log/response';
import { kindOf } from '~core/model/plan';
import { roundProgress } from '~core/schedule/rounds';
import type { Room } from '../room';

export const room: Room = {
  id: 'weigh-in',
  title: 'Weigh-in',
  order: 80,
  progress: ({ state, today }) => {
    const { plan } = state;
    const weighed = plan.traits.filter((t) => ['scale', 'picks', 'oven'].includes(kindOf(t).takenBy));
    if (weighed.length === 0) {
      return { howFar: '–', progress: 'none', hint: 'No trait of this trial is weighed' };
    }
    const units = plan.units.filter((u) => weighed.some((t) => isTaken(state, u.id, t))).length;
    const rounds = roundProgress(state, today);
    const all = units >= plan.units.length - state.deaths.size;
    // All were weighed before, and are to be weighed again now: what is due comes first.
    const due =
      all && state.seal
        ? rounds.find(
            (r) =>
              (r.status === 'due' || r.status === 'overdue') &&
              weighed.some((t) => r.round.traitIds.includes(t.id)),
          )
        : undefined;
    if (due) {
      const { unitsDone, unitsWanted } = due;
      return {
        howFar: `${unitsDone}/${unitsWanted}`,
        progress: 'half',
        hint: `${due.round.name}: ${unitsDone} of ${unitsWanted}`,
      };
    }
    const last = rounds.at(-1);
    return {
      howFar: units > 0 ? `${units}/${plan.units.length}` : last ? `d ${last.round.day}` : '',
      progress: units === 0 ? 'none' : all ? 'full' : 'half',
      hint: `${units} of ${plan.units.length} weighed`,
    };
  },
};
