import { type WallMs, wallDay } from './moment';

const HOUR_MS = 3_600_000;
/** Gaps longer than this many median steps belong to no reading. */
const GAP_STEPS = 3;

/** The middle one of some numbers; the mean of the two in the middle of an even count; NaN of none. */
export function median(values: readonly number[] | Float64Array): number {
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/**
 * Hours each reading stands for: half of the gap to either side; of a gap longer than three median steps nothing.
 * @param times ascending
 * @example hoursHeld([0, 3600000, 7200000]) // Float64Array [0.5, 1, 0.5]
 */
export function hoursHeld(times: ArrayLike<WallMs>): Float64Array {
  const n = times.length;
  const held = new Float64Array(n);
  if (n < 2) return held;
  const steps = new Float64Array(n - 1);
  for (let i = 0; i + 1 < n; i++) steps[i] = times[i + 1]! - times[i]!;
  const longest = GAP_STEPS * median(steps);
  for (let i = 0; i + 1 < n; i++) {
    if (steps[i]! > longest) continue;
    const half = steps[i]! / 2 / HOUR_MS;
    held[i]! += half;
    held[i + 1]! += half;
  }
  return held;
}

/** A stretch nobody read: longer than three median steps. */
export interface Gap {
  from: WallMs;
  to: WallMs;
  hours: number;
}

/** Stretches without readings. @example gapsOf([0, 1, 2, 36, 37].map((h) => h * 3600000)) // one of 34 h */
export function gapsOf(times: ArrayLike<WallMs>): Gap[] {
  const n = times.length;
  if (n < 3) return [];
  const steps = Float64Array.from({ length: n - 1 }, (_, i) => times[i + 1]! - times[i]!);
  const longest = GAP_STEPS * median(steps);
  return [...steps].flatMap((step, i) =>
    step > longest ? [{ from: times[i]!, to: times[i + 1]!, hours: step / HOUR_MS }] : [],
  );
}

/** Times and values of the readings a column has. */
export interface Readings {
  times: Float64Array;
  values: Float64Array;
}

/** A column's readings alone: cells without a number are left out. */
export function readingsOf(times: Float64Array, column: Float64Array): Readings {
  let n = 0;
  for (let i = 0; i < column.length; i++) if (!Number.isNaN(column[i]!)) n++;
  if (n === column.length) return { times, values: column };
  const [ts, values] = [new Float64Array(n), new Float64Array(n)];
  for (let i = 0, k = 0; i < column.length; i++) {
    if (Number.isNaN(column[i]!)) continue;
    ts[k] = times[i]!;
    values[k++] = column[i]!;
  }
  return { times: ts, values };
}

/**
 * Hours outside a band: readings below `low` or above `high`, each with the time it stands for.
 * @param low null: no lower limit
 * @example hoursOutside({ times, values: Float64Array.of(19, 26, 30) }, 20, 25) // 2
 */
export function hoursOutside({ times, values }: Readings, low: number | null, high: number | null): number {
  const held = hoursHeld(times);
  let hours = 0;
  for (let i = 0; i < values.length; i++) {
    if ((low !== null && values[i]! < low) || (high !== null && values[i]! > high)) hours += held[i]!;
  }
  return hours;
}

/** µmol m⁻² s⁻¹ for an hour, in mol m⁻². */
const MOL_PER_HOUR = 0.0036;

/**
 * Daily light integral, mol m⁻² d⁻¹, by local day: each reading of light for the time it stands for.
 * @param readings PPFD, µmol m⁻² s⁻¹
 * @example dailyLightIntegral(sixteenHoursOf200)[0] // { day: '2026-03-01', mol: 11.52 }
 */
export function dailyLightIntegral({ times, values }: Readings): { day: string; mol: number }[] {
  const held = hoursHeld(times);
  const days = new Map<string, number>();
  for (let i = 0; i < values.length; i++) {
    const day = wallDay(times[i]!);
    days.set(day, (days.get(day) ?? 0) + values[i]! * held[i]! * MOL_PER_HOUR);
  }
  return [...days].map(([day, mol]) => ({ day, mol }));
}

export interface Extent {
  n: number;
  min: number;
  mean: number;
  max: number;
}

/** Least, mean and greatest of a column's readings; null without any. */
export function extentOf(values: Float64Array): Extent | null {
  let [n, sum, min, max] = [0, 0, Infinity, -Infinity];
  for (const v of values) {
    if (Number.isNaN(v)) continue;
    n += 1;
    sum += v;
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return n === 0 ? null : { n, min, mean: sum / n, max };
}
