const UTC_LENGTH = '2026-03-11T09:30:00.000Z'.length;
const isPlainUtc = (iso: string): boolean => iso.length === UTC_LENGTH && iso.endsWith('Z');

/**
 * Order of two ISO date-times. Those written by Palazzo are all in UTC to the millisecond and compare as
 * text; others (a log made elsewhere, with an offset) are parsed.
 */
function compareTimes(a: string, b: string): number {
  if (isPlainUtc(a) && isPlainUtc(b)) return a < b ? -1 : a > b ? 1 : 0;
  return Date.parse(a) - Date.parse(b);
}

/**
 * Sorts by one or two times, then by id: the same order on every device. A list that is in order already
 * (most logs are) isn't sorted again.
 *
 * @param first ISO date-time that counts most
 * @param second ISO date-time that decides between equals
 */
export function inOrder<T>(
  items: readonly T[],
  first: (item: T) => string,
  second: (item: T) => string,
  idOf: (item: T) => string,
): T[] {
  const compare = (a: T, b: T) => {
    const difference = compareTimes(first(a), first(b)) || compareTimes(second(a), second(b));
    if (difference !== 0) return difference;
    return idOf(a) < idOf(b) ? -1 : idOf(a) > idOf(b) ? 1 : 0;
  };
  const sorted = [...items];
  for (let i = 1; i < sorted.length; i++) {
    if (compare(sorted[i - 1]!, sorted[i]!) > 0) return sorted.sort(compare);
  }
  return sorted;
}
