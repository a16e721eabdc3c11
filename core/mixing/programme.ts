import { inAllWater, joined } from './apart';
import type { Plan, ProductUse, Treatment } from '../model/plan';

/** Days of the trial a use falls on, in order; empty where it has no fixed days. */
export function daysOfUse(use: Pick<ProductUse, 'fromDay' | 'everyDays' | 'timesPerUnit'>): number[] {
  if (use.everyDays === null) return use.fromDay === null ? [] : [use.fromDay];
  const first = use.fromDay ?? 0;
  return Array.from({ length: use.timesPerUnit }, (_, i) => first + i * use.everyDays!);
}

/**
 * Which doses of a use the calendar can't remind of, in words, because no day is said; null where all have theirs.
 *
 * @example sayUndated({ fromDay: 3, everyDays: null, timesPerUnit: 8 })
 *   // 'Only day 3 is in the calendar; “Every” says when the other 7 are.'
 */
export function sayUndated(use: Parameters<typeof daysOfUse>[0]): string | null {
  const [first, ...more] = daysOfUse(use);
  if (first === undefined) return 'On no fixed days, so not in Today; “From day” and “Every” put it there.';
  const left = use.timesPerUnit - 1 - more.length;
  if (left <= 0) return null;
  return `Only day ${first} is in the calendar; “Every” says when the other ${left === 1 ? 'one is' : `${left} are`}.`;
}

/** Whether a use falls on a day. Flushes come first: see `dueMixes`. */
export const isDueOn = (use: Parameters<typeof daysOfUse>[0], day: number): boolean => {
  const first = use.fromDay ?? 0;
  if (use.everyDays === null) return use.fromDay === day;
  const index = (day - first) / use.everyDays;
  return Number.isInteger(index) && index >= 0 && index < use.timesPerUnit;
};

/**
 * The uses a treatment stands on at a day, whether or not it is fed that very day: those due, else those
 * whose time it is, else the last that were, else those without days.
 */
export const usesAt = (treatment: Pick<Treatment, 'products'>, day: number): ProductUse[] =>
  inAllWater(joined(standingAt(treatment, day)));

function standingAt(treatment: Pick<Treatment, 'products'>, day: number): ProductUse[] {
  const inWater = treatment.products.filter((u) => u.solutionLPerUnit !== null);
  // What is sprayed doesn't reach the roots with the feed; alone it is what is given.
  const watered = inWater.filter((u) => u.way !== 'spray');
  const dissolved = watered.length > 0 ? watered : inWater;
  const due = dissolved.filter((u) => isDueOn(u, day));
  if (due.length > 0) return due;
  const span = (u: ProductUse) => {
    const days = daysOfUse(u);
    return { first: days[0] ?? null, last: days[days.length - 1] ?? null };
  };
  const running = dissolved.filter((u) => {
    const { first, last } = span(u);
    return first !== null && first <= day && day <= last!;
  });
  if (running.length > 0) return running;
  const over = dissolved.filter((u) => (span(u).last ?? Infinity) < day);
  if (over.length > 0) {
    const latest = Math.max(...over.map((u) => span(u).last!));
    return over.filter((u) => span(u).last === latest);
  }
  const loose = dissolved.filter((u) => span(u).first === null);
  if (loose.length > 0) return loose;
  const first = Math.min(...dissolved.map((u) => span(u).first!));
  return dissolved.filter((u) => span(u).first === first);
}

/** Every day of the trial on which something is fed or flushed, in order. */
export function programmeDays(plan: Pick<Plan, 'treatments'>): number[] {
  const days = plan.treatments.flatMap((t) => [...t.flushDays, ...t.products.flatMap(daysOfUse)]);
  return [...new Set(days)].sort((a, b) => a - b);
}

/** The programme's next day from `day` on; null when it is over or there is none. */
export const nextProgrammeDay = (plan: Pick<Plan, 'treatments'>, day: number): number | null =>
  programmeDays(plan).find((d) => d >= day) ?? null;
