import dayjs from 'dayjs';

/** Today's calendar date where the reviewer is, YYYY-MM-DD. */
export const todayDate = (): string => dayjs().format('YYYY-MM-DD');

/** A date as people say it: “3 Nov”, with the year when it isn't this one. */
export function shortDate(date: string): string {
  const d = dayjs(date);
  return d.format(d.year() === dayjs().year() ? 'D MMM' : 'D MMM YYYY');
}

/** “today”, “tomorrow”, “in 4 days”, “3 days ago”. */
export function relativeDay(date: string, today: string): string {
  const days = dayjs(date).startOf('day').diff(dayjs(today).startOf('day'), 'day');
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}
