import { type TrialState, ofKind } from '../log/state';
import type { BodyOf } from '../log/entry';
import { localDay } from '../log/localDay';
import type { TreatmentId } from '../model/ids';
import { doseAmount } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { amountOf } from './density';
import { type DueMix, dueMixes } from './dueMixes';
import { givenPlan } from './givenPlan';
import { programmeDays } from './programme';
import { DOSE_ERROR_LIMIT } from './rounding';

type Mix = BodyOf<'mix'>;
type Logged = Pick<TrialState, 'byKind'>;

/** Less is what clings to the bucket (practice). */
const DREGS = 0.02;
/** A tenth more than was measured is the bucket's error, not a mistake (practice). */
const BUCKET_ERROR = 0.1;

/** Feedings from a batch. */
export const feedsOf = (state: Logged, { batch }: Pick<Mix, 'batch'>) =>
  batch === '' ? [] : ofKind(state, 'feed').filter((f) => f.body.batch === batch);

/** What no feeding has taken from a batch yet, L. */
export const leftOf = (state: Logged, mix: Pick<Mix, 'batch' | 'volumeL'>): number =>
  mix.volumeL - feedsOf(state, mix).reduce((s, f) => s + f.body.volumeLPerUnit * f.body.unitIds.length, 0);

/** Whether what is left of a batch is more than what clings to the bucket. */
export const hasLeft = (state: Logged, mix: Pick<Mix, 'batch' | 'volumeL'>): boolean =>
  leftOf(state, mix) > DREGS * mix.volumeL;

/** The most that can be given of what is left of a batch, L: buckets are marked coarsely. */
export const mostOf = (state: Logged, mix: Pick<Mix, 'batch' | 'volumeL'>): number =>
  leftOf(state, mix) + BUCKET_ERROR * mix.volumeL;

/** Whether units were fed on a day of the programme from a batch that was mixed for another. */
const fedFrom = (state: Logged, mix: Mix, day: number): boolean =>
  mix.day !== day && feedsOf(state, mix).some((f) => f.body.day === day);

/** Which treatments have their feed of a day in the log: mixed for it, or fed from what was left of another. */
export function servedOn(state: Logged, day: number): Set<TreatmentId> {
  const served = new Set<TreatmentId>();
  for (const { body } of ofKind(state, 'mix'))
    if (body.day === day || fedFrom(state, body, day)) served.add(body.treatmentId);
  return served;
}

/** Two vessels of one treatment on one day are told apart by how they are given and what goes into them. */
const isVesselOf = (mix: Mix, due: Pick<DueMix, 'treatmentId' | 'uses' | 'way'>): boolean =>
  mix.treatmentId === due.treatmentId &&
  (mix.way === undefined || mix.way === (due.way ?? null)) &&
  (due.uses.length === 0
    ? mix.amounts.length === 0
    : mix.amounts.some((a) => due.uses.some((u) => u.productId === a.productId)));

/** Whether a logged mix is what a vessel got on a day: `mixed` for it, or `left` of another day’s. */
export function servedBy(
  state: Logged,
  mix: Mix,
  due: Pick<DueMix, 'treatmentId' | 'uses' | 'way'>,
  day: number,
): 'mixed' | 'left' | null {
  if (!isVesselOf(mix, due)) return null;
  return mix.day === day ? 'mixed' : fedFrom(state, mix, day) ? 'left' : null;
}

/** Vessels a day asks for, each with whether it is in the log. */
function vesselsOn(state: TrialState, day: number): { due: DueMix; mixed: boolean }[] {
  const living = state.plan.units.filter((u) => !state.deaths.has(u.id));
  const mixes = ofKind(state, 'mix');
  return dueMixes(givenPlan(state), day, living).map((due) => ({
    due,
    mixed: mixes.some((m) => servedBy(state, m.body, due, day) !== null),
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

/** What is left of a batch in its bucket. */
export interface Leftover {
  batch: string;
  leftL: number;
  /** the most that can be given of it, L */
  mostL: number;
  /** the day it was mixed where it was, YYYY-MM-DD */
  mixedOn: string;
}

/** Whether a batch holds what a vessel wants: the same products at the same strength, within what a dose may be off (2 %). */
function holds(state: Pick<TrialState, 'plan' | 'byKind'>, mix: Mix, uses: DueMix['uses']): boolean {
  const stocks = ofKind(state, 'stock').map((s) => s.body);
  if (mix.volumeL <= 0 || mix.amounts.length !== uses.length) return false;
  return uses.every((use) => {
    const product = planIndex(state.plan).product(use.productId);
    const got = mix.amounts.find((a) => a.productId === use.productId);
    if (!product || !got) return false;
    const stock = stocks.find((s) => s.batch === got.fromStock);
    if (got.fromStock !== undefined && !stock) return false;
    const meant = got.wanted ?? got.amount;
    const [amount, unit] = stock
      ? [(meant / 1000 / stock.volumeL) * stock.amount, stock.unit]
      : [meant, got.unit];
    const inUse = amountOf(product, amount, unit, use.unit);
    const perL = doseAmount(use);
    return inUse.ok && perL > 0 && Math.abs(inUse.value / mix.volumeL / perL - 1) <= DOSE_ERROR_LIMIT / 100;
  });
}

/**
 * What is left, in its bucket, of the last batch of a vessel, where it holds what is wanted on a day; null: nothing. Whoever mixed
 * anew since has thrown older ones away; what is mixed in a unit’s own tank leaves nothing, and plain water isn’t kept.
 */
export function leftoverFor(
  state: Pick<TrialState, 'plan' | 'byKind'>,
  due: Pick<DueMix, 'treatmentId' | 'uses' | 'tanks' | 'kind' | 'way'>,
  day: number,
): Leftover | null {
  if (due.kind !== 'solution' || due.tanks !== null) return null;
  const last = ofKind(state, 'mix').findLast((e) => isVesselOf(e.body, due));
  if (!last || last.body.batch === '' || (last.body.day ?? -1) >= day) return null;
  const leftL = leftOf(state, last.body);
  // Of what nobody wrote a feeding of, nobody knows what is left.
  if (feedsOf(state, last.body).length === 0 || !hasLeft(state, last.body)) return null;
  return holds(state, last.body, due.uses)
    ? { batch: last.body.batch, leftL, mostL: mostOf(state, last.body), mixedOn: localDay(last) }
    : null;
}
