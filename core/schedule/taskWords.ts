import { END_EVENT, type PlannedTask } from '../model/task';

const days = (n: number) => `${Math.abs(n)} ${Math.abs(n) === 1 ? 'day' : 'days'}`;

/** When a task falls, in words. @example whenWords({ …task, after: null, day: 4 }) // 'day 4' */
export function whenWords({
  after,
  day,
  everyDays,
  untilDay,
  at,
}: Pick<PlannedTask, 'after' | 'day' | 'everyDays' | 'untilDay' | 'at'>): string {
  const first =
    after === null && day >= 0
      ? `day ${day}`
      : day === 0
        ? `${after === END_EVENT ? 'at' : 'when'} ${after}`
        : `${days(day)} ${day < 0 ? 'before' : 'after'} ${after ?? 'the start'}`;
  const again =
    everyDays === null
      ? ''
      : `, then every ${everyDays === 1 ? 'day' : `${everyDays} days`}${untilDay === null ? ' to the end' : ` to day ${untilDay}`}`;
  return `${first}${again}${at ? `, ${at}` : ''}`;
}
