import { ofKind } from '../log/resolve';
import type { TrialState } from '../log/state';
import type { BodyOf } from '../model/entry';
import type { TreatmentId, UnitId } from '../model/ids';
import type { Plan, ProductUse, Treatment } from '../model/plan';

/** Days of the trial a use falls on, in order; empty where it has no fixed days. */
export function daysOfUse(use: Pick<ProductUse, 'fromDay' | 'everyDays' | 'timesPerUnit'>): number[] {
  if (use.everyDays === null) return use.fromDay === null ? [] : [use.fromDay];
  const first = use.fromDay ?? 0;
  return Array.from({ length: use.timesPerUnit }, (_, i) => first + i * use.everyDays!);
}

/** Whether a use falls on a day. Flushes come first: see `dueMixes`. */
export const isDueOn = (use: Parameters<typeof daysOfUse>[0], day: number): boolean => {
  const first = use.fromDay ?? 0;
  if (use.everyDays === null) return use.fromDay === day;
  const index = (day - first) / use.everyDays;
  return Number.isInteger(index) && index >= 0 && index < use.timesPerUnit;
};

/** Something to be made up on a day: what goes into one vessel, or straight to the units. */
export interface DueMix {
  treatmentId: TreatmentId;
  /**
   * - solution: products in water
   * - direct: a dose to each unit as it is
   * - water: the same water without anything, for who gets no product
   * - flush: plain water in place of feed
   */
  kind: 'solution' | 'direct' | 'water' | 'flush';
  uses: ProductUse[];
  /** solution or water for each unit, L; null for `direct` and where nobody has said */
  perUnitL: number | null;
  unitIds: UnitId[];
}

const ofVolume = (uses: readonly ProductUse[]): Map<number | null, ProductUse[]> => {
  const groups = new Map<number | null, ProductUse[]>();
  for (const u of uses) groups.set(u.solutionLPerUnit, [...(groups.get(u.solutionLPerUnit) ?? []), u]);
  return groups;
};

/** The solution a unit of this treatment gets when nothing else says how much. */
const usualVolume = (treatments: readonly Treatment[]): number | null =>
  Math.max(0, ...treatments.flatMap((t) => t.products.map((u) => u.solutionLPerUnit ?? 0))) || null;

/**
 * What is to be mixed on a day, for every treatment with living units.
 *
 * A flush day takes the place of all feed. A treatment without products gets plain water on every day on
 * which another one is fed: a control gets the same water.
 *
 * @param day of the trial
 * @param living units that still want something
 * @param anyDay take in uses without fixed days too
 */
export function dueMixes(
  plan: Plan,
  day: number,
  living: readonly { id: UnitId; treatmentId: TreatmentId }[],
  anyDay = false,
): DueMix[] {
  const due: DueMix[] = [];
  for (const t of plan.treatments) {
    const unitIds = living.filter((u) => u.treatmentId === t.id).map((u) => u.id);
    if (unitIds.length === 0) continue;
    const base = { treatmentId: t.id, unitIds };
    if (t.flushDays.includes(day)) {
      due.push({
        ...base,
        kind: 'flush',
        uses: [],
        perUnitL: usualVolume([t]) ?? usualVolume(plan.treatments),
      });
      continue;
    }
    const uses = t.products.filter(
      (u) => isDueOn(u, day) || (anyDay && u.fromDay === null && u.everyDays === null),
    );
    for (const [perUnitL, group] of ofVolume(uses)) {
      due.push({ ...base, kind: perUnitL === null ? 'direct' : 'solution', uses: group, perUnitL });
    }
  }
  const fed = due.filter((d) => d.kind !== 'direct');
  if (fed.length > 0) {
    const perUnitL = Math.max(0, ...fed.map((d) => d.perUnitL ?? 0)) || null;
    for (const t of plan.treatments.filter((x) => x.products.length === 0)) {
      const unitIds = living.filter((u) => u.treatmentId === t.id).map((u) => u.id);
      if (unitIds.length > 0 && !due.some((d) => d.treatmentId === t.id)) {
        due.push({ treatmentId: t.id, kind: 'water', uses: [], perUnitL, unitIds });
      }
    }
  }
  const rank = new Map(plan.treatments.map((t, i) => [t.id, i]));
  return due.sort((a, b) => rank.get(a.treatmentId)! - rank.get(b.treatmentId)!);
}

/**
 * The uses a treatment stands on at a day, whether or not it is fed that very day: those due, else those
 * whose time it is, else the last that were, else those without days.
 */
export function usesAt(treatment: Pick<Treatment, 'products'>, day: number): ProductUse[] {
  const dissolved = treatment.products.filter((u) => u.solutionLPerUnit !== null);
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

/** Which of a day's mixes are in the log already. */
export function mixedOn(state: Pick<TrialState, 'entries'>, day: number): Set<TreatmentId> {
  const done = new Set<TreatmentId>();
  for (const { body } of state.entries) {
    if (body.kind === 'mix' && body.day === day) done.add(body.treatmentId);
  }
  return done;
}

/**
 * Whether a logged mix is this vessel's: two vessels of one treatment on one day are told apart by what went
 * into them.
 */
export const isMixOf = (
  mix: BodyOf<'mix'>,
  due: Pick<DueMix, 'treatmentId' | 'uses'>,
  day: number,
): boolean =>
  mix.day === day &&
  mix.treatmentId === due.treatmentId &&
  (due.uses.length === 0
    ? mix.amounts.length === 0
    : mix.amounts.some((a) => due.uses.some((u) => u.productId === a.productId)));

/** Vessels a day asks for, each with whether it is in the log. */
function vesselsOn(state: TrialState, day: number): { due: DueMix; mixed: boolean }[] {
  const living = state.plan.units.filter((u) => !state.deaths.has(u.id));
  const mixes = ofKind(state.entries, 'mix');
  return dueMixes(state.plan, day, living).map((due) => ({
    due,
    mixed: mixes.some((m) => isMixOf(m.body, due, day)),
  }));
}

/** How many vessels a day asks for, and how many of them are in the log. */
export function mixesDue(state: TrialState, day: number): { wanted: number; done: number } {
  const vessels = vesselsOn(state, day);
  return { wanted: vessels.length, done: vessels.filter((v) => v.mixed).length };
}

/**
 * Feed of the programme's last day before `day` that isn't in the log: missed, or not written down. Older days
 * are past mending and stand in the programme alone; plain water isn't asked after.
 *
 * @returns null where nothing is missing
 */
export function lateMix(state: TrialState, day: number): { day: number; missing: number } | null {
  const last = programmeDays(state.plan).findLast((d) => d < day);
  if (last === undefined) return null;
  const missing = vesselsOn(state, last).filter((v) => !v.mixed && v.due.kind !== 'water').length;
  return missing > 0 ? { day: last, missing } : null;
}

/** Litres one batch wants: what the units get, with some to spare. */
export const batchVolume = (
  due: Pick<DueMix, 'perUnitL' | 'unitIds'>,
  sparePercent: number,
): number | null =>
  due.perUnitL === null
    ? null
    : Number((due.perUnitL * due.unitIds.length * (1 + sparePercent / 100)).toPrecision(10));
