import { type TrialState, ofKind } from '../log/state';
import type { BodyOf } from '../log/entry';
import type { TreatmentId } from '../model/ids';
import { type DueMix, dueMixes } from './dueMixes';
import { givenPlan } from './givenPlan';
import { programmeDays } from './programme';

/** Which of a day's mixes are in the log already. */
export function mixedOn(state: Pick<TrialState, 'byKind'>, day: number): Set<TreatmentId> {
  const done = new Set<TreatmentId>();
  for (const { body } of ofKind(state, 'mix')) if (body.day === day) done.add(body.treatmentId);
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
  const mixes = ofKind(state, 'mix');
  return dueMixes(givenPlan(state), day, living).map((due) => ({
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
  const last = programmeDays(givenPlan(state)).findLast((d) => d < day);
  if (last === undefined) return null;
  const missing = vesselsOn(state, last).filter((v) => !v.mixed && v.due.kind !== 'water').length;
  return missing > 0 ? { day: last, missing } : null;
}
