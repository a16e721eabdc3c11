/** What a field hands on while a day or a time isn't typed to its end. */
export const UNFINISHED = '?';

/** Whether a whole day was typed. @example isDay('2026-11-27') // true */
export const isDay = (typed: unknown): typed is string =>
  typeof typed === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(typed);
