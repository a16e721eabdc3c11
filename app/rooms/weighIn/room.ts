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
    const last = roundProgress(state, today).at(-1);
    return {
      howFar: units > 0 ? `${units}/${plan.units.length}` : last ? `d ${last.round.day}` : '',
      progress: units === 0 ? 'none' : units >= plan.units.length - state.deaths.size ? 'full' : 'half',
      hint: `${units} of ${plan.units.length} weighed`,
    };
  },
};
