/** A reading at a time. */
export interface ReadingAt {
  /** ISO date-time */
  at: string;
  value: number;
}

interface Drift {
  start: ReadingAt;
  end: ReadingAt;
  change: number;
  days: number;
  /** change a day between first and last reading; null within an hour */
  perDay: number | null;
}

/** From the first reading to the last; null with fewer than two. Readings in any order. */
export function driftOf(readings: readonly ReadingAt[]): Drift | null {
  const sorted = [...readings].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const [start, end] = [sorted[0], sorted[sorted.length - 1]];
  if (!start || !end || sorted.length < 2) return null;
  const days = (Date.parse(end.at) - Date.parse(start.at)) / 86_400_000;
  const change = end.value - start.value;
  return { start, end, change, days, perDay: days >= 1 / 24 ? change / days : null };
}

/** Where a value stands in a band; null where the band doesn't say. */
export function inBand(
  value: number,
  low: number | null,
  high: number | null,
): 'below' | 'within' | 'above' | null {
  if (low === null && high === null) return null;
  if (low !== null && value < low) return 'below';
  return high !== null && value > high ? 'above' : 'within';
}
