import type { Readings } from './held';
import type { WallMs } from './moment';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** Hours of the clock that count as night, where no light was read (practice: lamps off from 22 to 6). */
export const NIGHT = { from: 22, to: 6 } as const;

/** Whether a moment lies in the night by the clock. @example isNight(Date.UTC(2026, 2, 1, 23)) // true */
export function isNight(ms: WallMs): boolean {
  const hour = (((ms % DAY_MS) + DAY_MS) % DAY_MS) / HOUR_MS;
  return hour >= NIGHT.from || hour < NIGHT.to;
}

/** Mean of each hour that has readings, by its beginning. */
export function hourlyMeans({ times, values }: Readings): Map<WallMs, number> {
  const sums = new Map<WallMs, { sum: number; n: number }>();
  for (let i = 0; i < times.length; i++) {
    const hour = Math.floor(times[i]! / HOUR_MS) * HOUR_MS;
    const s = sums.get(hour) ?? { sum: 0, n: 0 };
    s.sum += values[i]!;
    s.n += 1;
    sums.set(hour, s);
  }
  return new Map([...sums].map(([hour, { sum, n }]) => [hour, sum / n]));
}

/** How much higher one place read than another. */
export interface PlaceDifference {
  /** hours both have */
  hours: number;
  all: number;
  day: number | null;
  night: number | null;
}

/**
 * Two places against each other: the mean difference of the hours both have, by day and by night, so that gaps in one
 * don't count.
 * @returns null where they have no hour in common
 */
export function comparePlaces(a: Readings, b: Readings): PlaceDifference | null {
  const [here, there] = [hourlyMeans(a), hourlyMeans(b)];
  const differences = [...here].flatMap(([hour, value]) => {
    const other = there.get(hour);
    return other === undefined ? [] : [{ hour, d: value - other }];
  });
  const mean = (list: { d: number }[]) =>
    list.length === 0 ? null : list.reduce((s, x) => s + x.d, 0) / list.length;
  const all = mean(differences);
  return all === null
    ? null
    : {
        hours: differences.length,
        all,
        day: mean(differences.filter((x) => !isNight(x.hour))),
        night: mean(differences.filter((x) => isNight(x.hour))),
      };
}

/**
 * Points enough to draw a long series: of each stretch the least and the greatest reading, so that no peak is lost.
 * @param stretches about how many; a series with fewer readings than twice that is drawn whole
 */
export function thinned({ times, values }: Readings, stretches: number): { x: WallMs; y: number }[] {
  const n = times.length;
  if (n <= 2 * stretches) return Array.from({ length: n }, (_, i) => ({ x: times[i]!, y: values[i]! }));
  const points: { x: WallMs; y: number }[] = [];
  for (let s = 0; s < stretches; s++) {
    const [from, to] = [Math.floor((s * n) / stretches), Math.floor(((s + 1) * n) / stretches)];
    let [low, high] = [from, from];
    for (let i = from; i < to; i++) {
      if (values[i]! < values[low]!) low = i;
      if (values[i]! > values[high]!) high = i;
    }
    for (const i of low === high ? [low] : [Math.min(low, high), Math.max(low, high)]) {
      points.push({ x: times[i]!, y: values[i]! });
    }
  }
  return points;
}
