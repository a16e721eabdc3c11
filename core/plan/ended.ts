import type { Plan } from '../model/plan';
import { dayOfDate } from './days';

/** So many days after the last planned one nobody types the missing values in any more (practice). */
const STILL_TYPED_DAYS = 7;

/** The last planned day of a trial, counted from its start; null where no round is planned. */
export const lastDayOf = ({ rounds }: Pick<Plan, 'rounds'>): number | null =>
  rounds.length === 0 ? null : Math.max(...rounds.map((r) => r.day));

/**
 * Whether a trial is over: a week past its last planned day. What is missing then was missed, and isn't still to come.
 * @param today YYYY-MM-DD; left out where nobody knows the day: then it isn't over
 */
export function isOver(plan: Pick<Plan, 'rounds' | 'startDate'>, today: string | undefined): boolean {
  const last = lastDayOf(plan);
  return today !== undefined && last !== null && dayOfDate(plan.startDate, today) > last + STILL_TYPED_DAYS;
}
