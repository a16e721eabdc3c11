import { farFromRound } from '~core/log/plausible';
import type { Plan, Round } from '~core/model/plan';
import { dateOfDay } from '~core/plan/days';
import type { When } from '../form/happened';
import { UNFINISHED, isDay } from '../ui/day/whole';

/** When what is written at one sitting happened: on the round's day, just now, or at another moment. */
export type Sitting = { at: 'round' } | { at: 'now' } | { at: 'other'; date: string; time: string };

/** The day a round was planned for. */
export const dayOfRound = ({ startDate }: Pick<Plan, 'startDate'>, { day }: Pick<Round, 'day'>): string =>
  dateOfDay(startDate, day);

/** What a sitting begins with: a round that is long past is typed in from paper, on its day. */
export const usualSitting = (plan: Pick<Plan, 'startDate'>, round: Round, today: string): Sitting => ({
  at: dayOfRound(plan, round) < today && farFromRound(plan, round, today) !== null ? 'round' : 'now',
});

/** Why it can't have been then; null where it can. */
export function faultOfSitting(s: Sitting, today: string): string | null {
  if (s.at !== 'other') return null;
  if (!isDay(s.date) || Number.isNaN(Date.parse(s.date))) return 'A whole day.';
  if (s.time === UNFINISHED) return 'Hours and minutes.';
  return s.date > today ? 'That day is still to come.' : null;
}

/** When the acts of a sitting are written to have happened. */
export function whenOf(s: Sitting, plan: Pick<Plan, 'startDate'>, round: Round, today: string): When {
  if (s.at === 'now') return undefined;
  if (s.at === 'other') return { date: s.date, time: s.time || '12:00' };
  const date = dayOfRound(plan, round);
  return date === today ? undefined : { date, time: '12:00' };
}
