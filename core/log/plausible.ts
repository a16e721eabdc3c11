import type { RoundId, UnitId } from '../model/ids';
import type { Round, Trait } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { dateOfDay, dayOfDate } from '../plan/days';
import { planIndex } from '../plan/planIndex';
import { type Observation, type TrialState, observationsOf } from './state';

/** The newest value of a unit for a trait before the round in hand, with the date of its round. */
export function lastValueBefore(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  roundId: RoundId | null,
): (Pick<Observation, 'value' | 'outOf' | 'notYet'> & { date: string }) | null {
  const now = roundId === null ? Infinity : (planIndex(state.plan).round(roundId)?.day ?? Infinity);
  const last = observationsOf(state, unitId, trait.id).findLast((o) => o.roundId !== roundId && o.day < now);
  if (!last) return null;
  const { value, outOf, notYet, day } = last;
  return { value, outOf, notYet, date: dateOfDay(state.plan.startDate, day) };
}

/**
 * Says why a value looks wrong, or null when it doesn't. A warning, never a refusal: the person at the
 * bench knows best. Outside the trait's own limits; or, against the unit's last value, more than two and
 * a half times or less than seven tenths of it (common practice: catches a slipped decimal point and a
 * neighbour's reading).
 *
 * @param value in the trait's unit
 */
export function implausible(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  value: number,
  roundId: RoundId | null,
): string | null {
  const unit = trait.unit ? ` ${trait.unit}` : '';
  if (trait.plausibleLow !== null && value < trait.plausibleLow) {
    return `Below ${trait.plausibleLow}${unit}, the least expected.`;
  }
  if (trait.plausibleHigh !== null && value > trait.plausibleHigh) {
    return `Above ${trait.plausibleHigh}${unit}, the most expected.`;
  }
  // A score, a count of n or a yes may jump; only measured figures are held against the last one.
  if (trait.summary === 'sum' || !kindOf(trait).jumpsAreOdd) return null;
  const last = lastValueBefore(state, unitId, trait, roundId);
  if (!last || last.value <= 0) return null;
  const ratio = value / last.value;
  const times = ratio.toFixed(ratio < 10 ? 1 : 0);
  if (ratio > 2.5) return `${times} times the last value of ${last.value}${unit}.`;
  if (ratio < 0.7) return `Much less than the last value of ${last.value}${unit}.`;
  return null;
}

/** A round typed in on its day or up to this many days late is taken for what it is. */
const LATE_DAYS = 7;

/**
 * Says that a value's day lies far from its round's, or null when it doesn't: before the planned day, or long after.
 *
 * @param today YYYY-MM-DD where the reviewer is
 * @example farFromRound(plan, round, '2026-03-01') // 'Round 2 is planned for day 10, 10 days from now.'
 */
export function farFromRound(
  { startDate }: Pick<TrialState['plan'], 'startDate'>,
  round: Pick<Round, 'name' | 'day'>,
  today: string,
): string | null {
  const late = dayOfDate(startDate, today) - round.day;
  const days = (n: number) => `${n} ${n === 1 ? 'day' : 'days'}`;
  if (late < -1) return `${round.name} is planned for day ${round.day}, ${days(-late)} from now.`;
  if (late > LATE_DAYS) {
    return `${round.name} was planned for day ${round.day}, ${days(late)} ago: was this measured then?`;
  }
  return null;
}
