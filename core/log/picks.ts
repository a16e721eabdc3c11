import type { TraitKind } from '../model/trait';
import { type Grade, usualGrades } from '../model/grade';
import type { UnitId } from '../model/ids';
import type { Plan, Trait } from '../model/plan';
import type { Observed } from '../model/traitKinds';
import { dayOfDate } from '../plan/days';
import { localDay } from './localDay';
import type { Visit } from './response';
import { type TrialState, ofKind } from './state';

/** One unit's harvest of one day: what was picked of each grade, nothing being an entry too. */
interface DayPick {
  unitId: UnitId;
  /** of the trial */
  day: number;
  items: readonly { grade: string; count: number; weightG: number | null }[];
}

/** Grades of a trial: its own, else the usual ones. */
export const gradesOf = ({ grades, crop }: Pick<Plan, 'grades' | 'crop'>): readonly Grade[] =>
  grades ?? usualGrades(crop);

/** Every pick of a trial, entries of one unit and day put together, by unit and in the order of their days. */
export function dayPicks(state: Pick<TrialState, 'plan' | 'byKind'>): Map<UnitId, DayPick[]> {
  const byUnit = new Map<UnitId, DayPick[]>();
  for (const e of ofKind(state, 'pick')) {
    const day = dayOfDate(state.plan.startDate, localDay(e));
    const own = byUnit.get(e.body.unitId) ?? [];
    const same = own.find((p) => p.day === day);
    if (same) same.items = [...same.items, ...e.body.items];
    else own.push({ unitId: e.body.unitId, day, items: e.body.items });
    byUnit.set(e.body.unitId, own);
  }
  for (const own of byUnit.values()) own.sort((a, b) => a.day - b.day);
  return byUnit;
}

/** A day on which somebody picked. */
interface PickDay {
  day: number;
  /** living units that were looked at */
  done: UnitId[];
  /** those nobody wrote anything of */
  missing: UnitId[];
}

/** Days on which there was a pick, with who was looked at. A unit that died before a day isn't wanted on it. */
export function pickDays(state: Pick<TrialState, 'plan' | 'byKind' | 'deaths'>): PickDay[] {
  const picks = dayPicks(state);
  const days = [...new Set([...picks.values()].flatMap((own) => own.map((p) => p.day)))].sort(
    (a, b) => a - b,
  );
  const { startDate } = state.plan;
  return days.map((day) => {
    const has = (id: UnitId) => picks.get(id)?.some((p) => p.day === day) ?? false;
    const wanted = state.plan.units.filter((u) => {
      const death = state.deaths.get(u.id);
      return !death || has(u.id) || dayOfDate(startDate, localDay(death)) > day;
    });
    return {
      day,
      done: wanted.filter((u) => has(u.id)).map((u) => u.id),
      missing: wanted.filter((u) => !has(u.id)).map((u) => u.id),
    };
  });
}

/** What a unit gave over some days. */
export interface PickTotals {
  /** days with an entry */
  looked: number;
  /** pieces that count as yield, and all */
  count: number;
  all: number;
  /** g of yield; null: some of it wasn't weighed */
  weightG: number | null;
  /** first day with yield; null: none yet */
  firstDay: number | null;
  lastDay: number;
}

/**
 * Adds up a unit's picks.
 * @param withLosses what was lost to pests or neglect counts as yield too
 * @returns null where nobody looked
 */
export function pickTotals(
  picks: readonly DayPick[],
  grades: readonly Grade[],
  withLosses = false,
): PickTotals | null {
  if (picks.length === 0) return null;
  const isYield = (grade: string): boolean => {
    const use = grades.find((g) => g.name === grade)?.use ?? 'no';
    return use === 'yield' || (withLosses && use === 'loss');
  };
  const totals: PickTotals = {
    looked: picks.length,
    count: 0,
    all: 0,
    weightG: 0,
    firstDay: null,
    lastDay: 0,
  };
  for (const { day, items } of picks) {
    totals.lastDay = Math.max(totals.lastDay, day);
    for (const { grade, count, weightG } of items) {
      totals.all += count;
      if (!isYield(grade) || count === 0) continue;
      totals.count += count;
      totals.firstDay ??= day;
      totals.weightG =
        totals.weightG === null || weightG === null ? null : Number((totals.weightG + weightG).toFixed(6));
    }
  }
  return totals;
}

/** What a trait that rests on picks says of a unit; null where it says nothing (no fruit to be sound). */
function observedOf(kind: TraitKind, t: PickTotals): Observed | null {
  switch (kind) {
    case 'pickWeight':
      return t.weightG === null ? null : { type: 'continuous', value: t.weightG };
    case 'pickCount':
      return { type: 'count', count: t.count, exposure: 1 };
    case 'pickSound':
      return t.all === 0 ? null : { type: 'kOfN', k: t.count, n: t.all };
    case 'pickMean':
      return t.count === 0 || t.weightG === null ? null : { type: 'continuous', value: t.weightG / t.count };
    case 'pickFirst':
      return { type: 'event', happened: t.firstDay !== null, day: t.firstDay ?? t.lastDay };
    default:
      return null;
  }
}

/**
 * A unit's picks as one visit of a trait that rests on them.
 * @param days those that count; null: all
 */
export function pickVisits(
  state: Pick<TrialState, 'plan' | 'byKind'>,
  unitId: UnitId,
  trait: Trait,
  days: ReadonlySet<number> | null = null,
  withLosses = false,
): Visit[] {
  const own = (dayPicks(state).get(unitId) ?? []).filter((p) => days === null || days.has(p.day));
  const totals = pickTotals(own, gradesOf(state.plan), withLosses);
  const observed = totals && observedOf(trait.kind, totals);
  return observed
    ? [{ roundId: null, day: totals.lastDay, samples: [{ sample: null, crop: 0, observed }] }]
    : [];
}
