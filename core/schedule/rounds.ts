import dayjs from 'dayjs';
import type { Round, Trait } from '../model/plan';
import { type TrialState, observationsOf } from '../log/state';

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

/** The date a day of the trial falls on. */
export function dateOfDay(startDate: string, day: number): string {
  return dayjs(startDate).add(day, 'day').format('YYYY-MM-DD');
}

/** Whole days from the start to a date; negative before it. */
export function dayOfDate(startDate: string, date: string): number {
  return dayjs(date).startOf('day').diff(dayjs(startDate).startOf('day'), 'day');
}

/** How many samples of a trait a unit has in a round. */
function samplesDone(
  state: TrialState,
  unitId: TrialState['plan']['units'][number]['id'],
  trait: Trait,
  round: Round,
) {
  return new Set(observationsOf(state, unitId, trait.id, round.id).map((o) => o.sample)).size;
}

/** Units that are expected in a round: all but the dead. */
export function livingUnits(state: TrialState) {
  return state.plan.units.filter((u) => !state.deaths.has(u.id));
}

/** Whether a unit has every trait of a round, all samples. */
export function unitDoneInRound(
  state: TrialState,
  unitId: TrialState['plan']['units'][number]['id'],
  round: Round,
): boolean {
  return round.traitIds.every((id) => {
    const trait = state.plan.traits.find((t) => t.id === id);
    return (
      !trait ||
      samplesDone(state, unitId, trait, round) >= (trait.kind === 'weighing' ? 1 : trait.samplesPerUnit)
    );
  });
}

/**
 * How far each planned round is on a day, in order of date.
 * @param today YYYY-MM-DD
 */
export function roundProgress(state: TrialState, today: string): RoundProgress[] {
  const living = livingUnits(state);
  return [...state.plan.rounds]
    .sort((a, b) => a.day - b.day)
    .map((round) => {
      const date = dateOfDay(state.plan.startDate, round.day);
      const unitsDone = living.filter((u) => unitDoneInRound(state, u.id, round)).length;
      const done = living.length > 0 && unitsDone === living.length;
      return {
        round,
        date,
        status: done ? 'done' : date > today ? 'upcoming' : date === today ? 'due' : 'overdue',
        unitsDone,
        unitsWanted: living.length,
        started: state.observations.some((o) => o.roundId === round.id),
      };
    });
}

export type TrialStage = 'planning' | 'running' | 'finished';

/** Planning until sealed; finished when every planned round is done. */
export function stageOf(state: TrialState, today: string): TrialStage {
  if (!state.seal) return 'planning';
  const rounds = roundProgress(state, today);
  return rounds.length > 0 && rounds.every((r) => r.status === 'done') ? 'finished' : 'running';
}
