import dayjs from 'dayjs';

/** The date a day of the trial falls on. @example dateOfDay('2026-03-01', 10) // '2026-03-11' */
export function dateOfDay(startDate: string, day: number): string {
  return dayjs(startDate).add(day, 'day').format('YYYY-MM-DD');
}

/** Whole days from the start to a date; negative before it. @example dayOfDate('2026-03-01', '2026-03-11') // 10 */
export function dayOfDate(startDate: string, date: string): number {
  return Math.round((Date.parse(`${date}T00:00:00Z`) - Date.parse(`${startDate}T00:00:00Z`)) / 86_400_000);
}
