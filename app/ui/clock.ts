import dayjs from 'dayjs';
import { dayLocale, hour12 } from './region';

/** Today's calendar date where the reviewer is, YYYY-MM-DD. */
export const todayDate = (): string => dayjs().format('YYYY-MM-DD');

/** The time on the wall, HH:MM. */
export const timeNow = (): string => dayjs().format('HH:mm');

const dateWords = (date: string, more: Intl.DateTimeFormatOptions = {}): string => {
  const d = dayjs(date);
  const year = d.year() === dayjs().year() && !more.hour ? undefined : 'numeric';
  return new Intl.DateTimeFormat(dayLocale(), { day: 'numeric', month: 'short', year, ...more }).format(
    d.toDate(),
  );
};

/** A date as people say it: “3 Nov” or “Nov 3”, with the year when it isn't this one. @param date a day or a moment */
export const shortDate = (date: string): string => dateWords(date);

/** A day with its weekday: “Tuesday, 3 Nov”. */
export const longDate = (date: string): string => dateWords(date, { weekday: 'long' });

const clock = (): Intl.DateTimeFormatOptions => {
  const twelve = hour12();
  return { hour: '2-digit', minute: '2-digit', ...(twelve !== undefined && { hour12: twelve }) };
};

/** A moment with its time of day, “3 Nov 2026, 14:05”. */
export const shortTime = (at: string): string => dateWords(at, clock());

/** The time of day alone, “14:05”. */
export const clockTime = (at: string): string =>
  new Intl.DateTimeFormat(dayLocale(), clock()).format(dayjs(at).toDate());

/** “today”, “tomorrow”, “in 4 days”, “3 days ago”. */
export const relativeDay = (date: string, today: string): string =>
  new Intl.RelativeTimeFormat('en', { numeric: 'auto' }).format(
    dayjs(date).startOf('day').diff(dayjs(today).startOf('day'), 'day'),
    'day',
  );
