/** A moment, with how far local time was ahead of UTC where it was logged. */
interface Moment {
  at: string;
  offsetMin: number | null;
}

/**
 * The calendar day on which something happened where it happened. Older lines don't say how far their clock was
 * from UTC; their day is cut in UTC, as it was when they were written.
 *
 * @returns YYYY-MM-DD
 * @example localDay({ at: '2026-03-02T02:30:00.000Z', offsetMin: -480 }) // '2026-03-01': half past six in the evening
 */
export const localDay = ({ at, offsetMin }: Moment): string =>
  new Date(Date.parse(at) + (offsetMin ?? 0) * 60_000).toISOString().slice(0, 10);
