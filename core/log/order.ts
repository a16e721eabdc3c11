/** A moment as milliseconds since 1970. */
const moment = (iso: string): number => Date.parse(iso);

/**
 * Sorts by one or more times, then by id: the same order on every device. Times are read once each, and
 * a list that is in order already (most logs are) isn't sorted again.
 *
 * @param timesOf ISO date-times, the first counting most
 */
export function inOrder<T>(
  items: readonly T[],
  timesOf: (item: T) => readonly string[],
  idOf: (item: T) => string,
): T[] {
  const keyed = items.map((item) => ({ item, times: timesOf(item).map(moment), id: idOf(item) }));
  const compare = (a: (typeof keyed)[number], b: (typeof keyed)[number]) => {
    for (let i = 0; i < a.times.length; i++) {
      const difference = a.times[i]! - b.times[i]!;
      if (difference !== 0) return difference;
    }
    return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
  };
  if (keyed.some((k, i) => i > 0 && compare(keyed[i - 1]!, k) > 0)) keyed.sort(compare);
  return keyed.map((k) => k.item);
}
