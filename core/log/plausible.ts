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
  const last = observationsOf(state, unitId, trait.id).findLast(
    (o) => o.roundId !== roundId && o.day < now && !(o.notYet && kindOf(trait).jumpsAreOdd),
  );
  if (!last) return null;
  const { value, outOf, notYet, day } = last;
  return { value, outOf, notYet, date: dateOfDay(state.plan.startDate, day) };
}

/** Other units of a round that are enough to hold a value against (practice). */
const ENOUGH_OTHERS = 4;
/** Outside the others' least and most by this factor a value is odd (practice). */
const BEYOND = 2.2;
/** A unit grows by up to so much in a week, and never by more than a slipped decimal point between two visits (practice). */
const [A_WEEK, A_SLIP] = [2.5, 8];

type Seen = Pick<Observation, 'value' | 'day'>;

const median = (xs: readonly number[]): number => {
  const sorted = [...xs].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
};

/** The newest figure above nought of these before a day; of one sample, where it has any. */
function newest(all: readonly Observation[], before: number, roundId: RoundId | null, sample: number | null) {
  const earlier = all.filter((o) => o.roundId !== roundId && o.day < before && !o.notYet && o.value > 0);
  return (earlier.findLast((o) => o.sample === sample) ?? earlier.at(-1)) as Seen | undefined;
}

/** How a value lies to the unit's own last one, given how the others of the round went on; null where it fits. */
function offCourse(value: number, last: Seen, days: number, grown: readonly number[]): boolean {
  const change = Math.log(value / last.value);
  if (grown.length >= ENOUGH_OTHERS - 1) {
    const middle = median(grown);
    const spread = 1.4826 * median(grown.map((g) => Math.abs(g - middle)));
    return Math.abs(change - middle) > Math.max(Math.log(2), 4 * spread);
  }
  const most = Math.min(A_SLIP, A_WEEK ** Math.max(1, days / 7));
  return change > Math.log(most) || change < -Math.log(A_WEEK);
}

/**
 * Says why a value looks wrong, or null when it doesn't. A warning, never a refusal: the person at the bench knows best.
 * Outside the trait's own limits; else held against the unit's own last value, given the time since and how the other units of
 * the round went on; of a unit without one, and of what is added up, against the others of the round. It catches a slipped
 * decimal point, a doubled digit, and a neighbour's reading (limits are practice, tried on whole trials: see the test).
 *
 * @param value in the trait's unit
 * @param sample which one within the unit; null where it is taken as a whole
 */
export function implausible(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  value: number,
  roundId: RoundId | null,
  sample: number | null = null,
): string | null {
  const unit = trait.unit ? ` ${trait.unit}` : '';
  if (trait.plausibleLow !== null && value < trait.plausibleLow) {
    return `Below ${trait.plausibleLow}${unit}, the least expected.`;
  }
  if (trait.plausibleHigh !== null && value > trait.plausibleHigh) {
    return `Above ${trait.plausibleHigh}${unit}, the most expected.`;
  }
  // A score, a count of n or a yes may jump; a nought says that nothing is there.
  if (!kindOf(trait).jumpsAreOdd || !(value > 0)) return null;
  const day = roundId === null ? Infinity : (planIndex(state.plan).round(roundId)?.day ?? Infinity);
  const before = (id: UnitId, of: number | null) =>
    newest(observationsOf(state, id, trait.id), day, roundId, of);
  const now: number[] = [];
  const grown: number[] = [];
  for (const { id } of state.plan.units) {
    if (id === unitId || roundId === null) continue;
    const here = observationsOf(state, id, trait.id, roundId).filter((o) => !o.notYet && o.value > 0);
    const [first] = here;
    if (!first) continue;
    now.push(...here.map((o) => o.value));
    const last = before(id, first.sample);
    if (last) grown.push(Math.log(first.value / last.value));
  }
  const own = before(unitId, sample);
  const summed = trait.summary === 'sum';
  const times = (of: number) => (value >= of ? value / of : of / value);
  const rounded = (x: number) => x.toFixed(x < 10 ? 1 : 0);
  if (own && !summed) {
    const days = Number.isFinite(day) ? day - own.day : 7;
    if (!offCourse(value, own, days, grown)) return null;
    return value > own.value
      ? `${rounded(times(own.value))} times the last value of ${own.value}${unit}.`
      : `Much less than the last value of ${own.value}${unit}.`;
  }
  if (now.length >= ENOUGH_OTHERS) {
    const [least, most] = [Math.min(...now), Math.max(...now)];
    if (value > most * BEYOND)
      return `${rounded(value / most)} times the most of this round so far, ${most}${unit}.`;
    if (value < least / BEYOND) return `Far below the least of this round so far, ${least}${unit}.`;
    return null;
  }
  return own && value > own.value * A_SLIP
    ? `${rounded(times(own.value))} times the last value of ${own.value}${unit}.`
    : null;
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
