import { isTaken, samplesIn } from '../log/response';
import { type TrialState, observationsOf } from '../log/state';
import type { RoundId, UnitId } from '../model/ids';
import type { Round, Trait, Unit } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { dateOfDay, dayOfDate } from '../plan/days';
import { planIndex } from '../plan/planIndex';

export type RoundStatus = 'done' | 'due' | 'overdue' | 'upcoming';

export interface RoundProgress {
  round: Round;
  /** calendar date, YYYY-MM-DD */
  date: string;
  status: RoundStatus;
  /** units with every trait of the round entered, out of the living ones */
  unitsDone: number;
  unitsWanted: number;
  started: boolean;
}

/** Units that are expected in a round: all but the dead. */
export const livingUnits = (state: TrialState): readonly Unit[] =>
  state.plan.units.filter((u) => !state.deaths.has(u.id));

/** The sample numbers a round wants of a unit for a trait: null alone where the unit is taken as a whole. */
export function wantedSamples(state: TrialState, unitId: UnitId, trait: Trait): (number | null)[] {
  // The dead are asked for nothing, but for what can be seen of them.
  if (state.deaths.has(unitId) && !trait.evenDead) return [];
  const n = samplesIn(state.plan, trait);
  if (n === 1) return [null];
  const dead = state.deadSamples.get(unitId);
  return Array.from({ length: n }, (_, i) => i + 1).filter((s) => !dead?.has(s));
}

/** Whether a unit has everything a round wants of one trait. */
export function isMeasured(state: TrialState, unitId: UnitId, trait: Trait, roundId: RoundId): boolean {
  return firstOpenSample(state, unitId, trait, roundId) === undefined;
}

/**
 * The first sample of a unit that has no value yet in a round; null for a unit taken as a whole, undefined when
 * nothing is open.
 */
export function firstOpenSample(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  roundId: RoundId,
): number | null | undefined {
  if (kindOf(trait).takenBy === 'words') {
    if (state.deaths.has(unitId) && !trait.evenDead) return undefined;
    return state.notes.some((n) => n.unitId === unitId && n.traitId === trait.id && n.roundId === roundId)
      ? undefined
      : null;
  }
  // What rests on picks or drying is taken by itself.
  if (['picks', 'oven'].includes(kindOf(trait).takenBy)) {
    const asked = !state.deaths.has(unitId) || trait.evenDead;
    return !asked || isTaken(state, unitId, trait) ? undefined : null;
  }
  const here = observationsOf(state, unitId, trait.id, roundId);
  const wanted = wantedSamples(state, unitId, trait);
  // A unit taken as a whole is done with any value.
  if (wanted[0] === null) return here.length > 0 ? undefined : null;
  const done = new Set(here.map((o) => o.sample));
  return wanted.find((s) => !done.has(s));
}

/** Units done in a round, kept by the values, deaths and remarks they rest on. */
const counted = new WeakMap<object, { notes: unknown; deaths: unknown; dead: unknown; done: number }>();

function unitsDone(state: TrialState, round: Round, living: readonly Unit[]): number {
  const key = state.byRound.get(round.id);
  const known = key && counted.get(key);
  const { notes, deaths, deadSamples: dead } = state;
  if (known && known.notes === notes && known.deaths === deaths && known.dead === dead) return known.done;
  const traits = round.traitIds.flatMap((id) => planIndex(state.plan).trait(id) ?? []);
  const done = living.filter((u) => traits.every((t) => isMeasured(state, u.id, t, round.id))).length;
  if (key) counted.set(key, { notes, deaths, dead, done });
  return done;
}

const progressOf = new WeakMap<TrialState, Map<string, RoundProgress[]>>();

/**
 * How far each planned round is on a day, in order of date.
 * @param today YYYY-MM-DD
 */
export function roundProgress(state: TrialState, today: string): RoundProgress[] {
  let byDay = progressOf.get(state);
  if (!byDay) progressOf.set(state, (byDay = new Map()));
  let progress = byDay.get(today);
  if (!progress) byDay.set(today, (progress = workOutProgress(state, today)));
  return progress;
}

function workOutProgress(state: TrialState, today: string): RoundProgress[] {
  const living = livingUnits(state);
  const remarked = new Set(state.notes.map((n) => n.roundId));
  return [...state.plan.rounds]
    .sort((a, b) => a.day - b.day)
    .map((round) => {
      const date = dateOfDay(state.plan.startDate, round.day);
      const started = state.byRound.has(round.id) || remarked.has(round.id);
      const done = started ? unitsDone(state, round, living) : 0;
      const finished = living.length > 0 && done === living.length;
      return {
        round,
        date,
        status: finished ? 'done' : date > today ? 'upcoming' : date === today ? 'due' : 'overdue',
        unitsDone: done,
        unitsWanted: living.length,
        started,
      };
    });
}

/**
 * Which of several visits a page opens: what is due and open; else what is open on the day in hand, or the visit in
 * hand itself, so that whoever notices a slip in the last value still stands where it was typed; else the nearest day,
 * the earlier one of two as near.
 *
 * @param visits in order of date
 * @param today YYYY-MM-DD
 * @param isOpen whether something is left to take at a visit
 * @param inHand the visit that was open until now; left out on arrival
 * @returns undefined where there is no visit
 * @example
 * visitToOpen(roundProgress(state, today), today, (r) => r.status !== 'done')
 */
export function visitToOpen<V extends { date: string }>(
  visits: readonly V[],
  today: string,
  isOpen: (visit: V) => boolean,
  inHand?: V,
): V | undefined {
  const away = (v: V) => Math.abs(dayOfDate(today, v.date));
  const due = visits.find((v) => v.date <= today && isOpen(v));
  const near = inHand ?? [...visits].sort((a, b) => away(a) - away(b))[0];
  return due ?? visits.find((v) => v.date === near?.date && isOpen(v)) ?? near;
}

export type TrialStage = 'planning' | 'running' | 'finished';

/** Planning until sealed; finished when every planned round is done. */
export function stageOf(state: TrialState, today: string): TrialStage {
  if (!state.seal) return 'planning';
  const rounds = roundProgress(state, today);
  return rounds.length > 0 && rounds.every((r) => r.status === 'done') ? 'finished' : 'running';
}
