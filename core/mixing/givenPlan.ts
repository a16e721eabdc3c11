import { type TrialState, ofKind } from '../log/state';
import type { BodyOf } from '../log/entry';
import type { Plan, ProductUse } from '../model/plan';
import { daysOfUse } from './programme';

type Change = Pick<BodyOf<'doseChange'>, 'use' | 'to' | 'day' | 'given'>;

/** A stretch of the programme: one dose, as long as it is given. */
interface Stretch {
  /** the use of the plan it goes back to, counted from 0; null: one that wasn't planned */
  of: number | null;
  use: ProductUse;
  /** nothing has taken its place */
  goesOn: boolean;
}

/** What there was of a use up to a day; null when it never was given. @param given times, where it has no fixed days */
function before(use: ProductUse, day: number, given: number): ProductUse | null {
  const fixed = daysOfUse(use);
  const times = fixed.length === 0 ? Math.min(given, use.timesPerUnit) : fixed.filter((d) => d < day).length;
  return times === 0 ? null : { ...use, timesPerUnit: times };
}

/**
 * How a use goes on from a day if nothing but its dose changes: the days and times that are left of it.
 * @returns null when it is over by then
 */
export function restOf(use: ProductUse, day: number, given: number): ProductUse | null {
  const fixed = daysOfUse(use);
  if (fixed.length === 0) {
    const left = use.timesPerUnit - given;
    return left > 0 ? { ...use, timesPerUnit: left } : null;
  }
  const left = fixed.filter((d) => d >= day);
  return left.length === 0 ? null : { ...use, fromDay: left[0]!, timesPerUnit: left.length };
}

/**
 * Doses of a treatment as they were and will be given: each change ends what went on and begins what it says.
 *
 * @param changes in the order of their days
 * @example stretchesOf([2 mL every 2 days from 0, 10 times], [{ use: 0, day: 9, to: 3 mL from day 10 }]) // 5 × 2 mL, then 3 mL
 */
export function stretchesOf(uses: readonly ProductUse[], changes: readonly Change[]): Stretch[] {
  let all: Stretch[] = uses.map((use, of) => ({ of, use, goesOn: true }));
  for (const { use: of, to, day, given } of changes) {
    const added: Stretch[] = to ? [{ of, use: to, goesOn: true }] : [];
    const at = of === null ? -1 : all.findLastIndex((s) => s.of === of && s.goesOn);
    if (at < 0) {
      all = [...all, ...added];
      continue;
    }
    const earlierUse = before(all[at]!.use, day, given);
    all = all.toSpliced(at, 1, ...(earlierUse ? [{ of, use: earlierUse, goesOn: false }] : []), ...added);
  }
  return all;
}

type Logged = Pick<TrialState, 'plan' | 'byKind'>;

/** Stretches of one treatment, by plan and log. */
export const stretchesIn = (state: Logged, treatmentId: string): Stretch[] =>
  stretchesOf(
    state.plan.treatments.find((t) => t.id === treatmentId)?.products ?? [],
    ofKind(state, 'doseChange')
      .filter((c) => c.body.treatmentId === treatmentId)
      .map((c) => c.body)
      .sort((a, b) => a.day - b.day),
  );

const known = new WeakMap<Logged, Plan>();

/**
 * The plan with the doses as they are given: what Mixing, calendar, cost and stock go by. The sealed plan stays what
 * it was, for its hash and for the review, which tells both.
 */
export function givenPlan(state: Logged): Plan {
  const changed = new Set(ofKind(state, 'doseChange').map((c) => c.body.treatmentId));
  if (changed.size === 0) return state.plan;
  let plan = known.get(state);
  if (!plan) {
    plan = {
      ...state.plan,
      treatments: state.plan.treatments.map((t) =>
        changed.has(t.id) ? { ...t, products: stretchesIn(state, t.id).map((s) => s.use) } : t,
      ),
    };
    known.set(state, plan);
  }
  return plan;
}
