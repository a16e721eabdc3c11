import type { Entry } from './entry';

const UTC_LENGTH = '2026-03-11T09:30:00.000Z'.length;
const isPlainUtc = (iso: string): boolean => iso.length === UTC_LENGTH && iso.endsWith('Z');

/**
 * Order of two ISO date-times. Those written by Palazzo are all in UTC to the millisecond and compare as
 * text; others (a log made elsewhere, with an offset) are parsed.
 */
export function compareTimes(a: string, b: string): number {
  if (isPlainUtc(a) && isPlainUtc(b)) return a < b ? -1 : a > b ? 1 : 0;
  return Date.parse(a) - Date.parse(b);
}

type Written = Pick<Entry, 'counter' | 'device' | 'id'>;

/**
 * Which of two lines was written later, by the logical clock: the counter, and between lines that didn't know
 * of each other the device and the id. The clock on the wall has no say.
 */
export const compareWritten = (a: Written, b: Written): number =>
  compareLines(a.counter, a.device, a.id, b.counter, b.device, b.id);

/** The same of a line's stamp, whatever its id is called where it is asked. */
export function compareLines(
  aCounter: number,
  aDevice: string,
  aId: string,
  bCounter: number,
  bDevice: string,
  bId: string,
): number {
  if (aCounter !== bCounter) return aCounter - bCounter;
  if (aDevice !== bDevice) return aDevice < bDevice ? -1 : 1;
  return aId < bId ? -1 : aId > bId ? 1 : 0;
}

/** Which of two lines tells of something later: when it happened, then when it was written. */
export const compareHappened = (a: Written & { at: string }, b: Written & { at: string }): number =>
  compareTimes(a.at, b.at) || compareWritten(a, b);

/** Where an item belongs in a sorted list: the first index whose item comes after it. */
export function insertionIndex<T>(sorted: readonly T[], item: T, compare: (a: T, b: T) => number): number {
  let [low, high] = [0, sorted.length];
  // Most of what comes is the newest.
  if (high > 0 && compare(sorted[high - 1]!, item) <= 0) return high;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (compare(sorted[middle]!, item) <= 0) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Index of an item in a list sorted by the same comparison; -1 when it isn't there. */
export function sortedIndexOf<T>(sorted: readonly T[], item: T, compare: (a: T, b: T) => number): number {
  const after = insertionIndex(sorted, item, compare);
  return after > 0 && compare(sorted[after - 1]!, item) === 0 ? after - 1 : -1;
}
