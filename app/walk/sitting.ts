import { farFromRound } from '~core/log/plausible';
import type { Plan } from '~core/model/plan';
import { dateOfDay } from '~core/plan/days';
import type { When } from '../form/happened';
import { UNFINISHED, isDay } from '../ui/day/whole';

/** When what is written at one sitting happened: on the round's day, just now, or at another moment. */
export type Sitting = { at: 'round' } | { at: 'now' } | { at: 'other'; date: string; time: string };

/** What is done at a sitting: a round, or picks, drying, mixing of a day. */
export interface Occasion {
  id: string;
  name: string;
  /** the day it was planned for; null where none was */
  day: number | null;
}

type Dated = Pick<Plan, 'startDate'>;

/** The day an occasion was planned for. */
export const plannedDay = ({ startDate }: Dated, { day }: Pick<Occasion, 'day'>): string | null =>
  day === null ? null : dateOfDay(startDate, day);

/** What a sitting begins with: a round that is long past is typed in from paper, on its day. */
export function usualSitting(plan: Dated, { name, day }: Occasion, today: string): Sitting {
  const past = day !== null && dateOfDay(plan.startDate, day) < today;
  return { at: past && farFromRound(plan, { name, day }, today) !== null ? 'round' : 'now' };
}

/** Why it can't have been then; null where it can. @param now HH:MM */
export function faultOfSitting(s: Sitting, today: string, now: string): string | null {
  if (s.at !== 'other') return null;
  if (!isDay(s.date) || Number.isNaN(Date.parse(s.date))) return 'A whole day.';
  if (s.time === UNFINISHED) return 'Hours and minutes.';
  if (s.date > today) return 'That day is still to come.';
  return s.date === today && (s.time || '12:00') > now ? 'That hour is still to come.' : null;
}

/** When the acts of a sitting are written to have happened. @param planned the day of its occasion */
export function whenOf(s: Sitting, planned: string | null, today: string): When {
  if (s.at === 'now') return undefined;
  if (s.at === 'other') return { date: s.date, time: s.time || '12:00' };
  return planned === null || planned === today ? undefined : { date: planned, time: '12:00' };
}
