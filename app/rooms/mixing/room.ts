import { givenPlan } from '~core/mixing/givenPlan';
import { mixesDue } from '~core/mixing/mixesInLog';
import { programmeDays } from '~core/mixing/programme';
import { dayOfDate } from '~core/plan/days';
import type { Room, RoomContext, RoomProgress } from '../room';

/** What is due today, else the next day of the programme. */
function mixingProgress({ state, today }: RoomContext): RoomProgress {
  const plan = givenPlan(state);
  if (!plan.treatments.some((t) => t.products.length > 0)) {
    return { howFar: '–', progress: 'none', hint: 'Nothing is mixed in this trial' };
  }
  const days = programmeDays(plan);
  if (days.length === 0) {
    return {
      howFar: '',
      progress: 'none',
      hint: 'No programme: doses without days are mixed when you like',
    };
  }
  const day = dayOfDate(plan.startDate, today);
  const { wanted, done } = mixesDue(state, day);
  const next = days.find((d) => d > day);
  const past = days.filter((d) => d < day).length;
  if (wanted > done) {
    return { howFar: `${done}/${wanted}`, progress: 'half', hint: `${wanted - done} to mix today` };
  }
  return {
    howFar: next === undefined ? '' : `d ${next}`,
    progress: next === undefined ? 'full' : past > 0 ? 'half' : 'none',
    hint: next === undefined ? 'The programme is over' : `Next on day ${next}`,
  };
}

export const room: Room = {
  id: 'mixing',
  title: 'Mixing',
  order: 60,
  progress: mixingProgress,
};
