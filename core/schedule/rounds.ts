import dayjs from 'dayjs';
import type { Round } from '../model/plan';
import type { TrialState } from '../log/state';
import { samplesIn } from '../log/unitValues';

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

const counted = new WeakMap<TrialState, Map<string, number>>();

/** Distinct samples by `round/unit/trait`, counted in one pass and kept with the state. */
function samplesByPlace(state: TrialState): Map<string, number> {
  const known = counted.get(state);
  if (known) return known;
  const seen = new Set<string>();
  const counts = new Map<string, number>();
  for (const o of state.observations) {
    if (o.roundId === null) continue;
    const place = `${o.roundId}/${o.unitId}/${o.traitId}`;
    if (o.sample !== null) {
      const sample = `${place}/${o.sample}`;
      if (seen.has(sample)) continue;
      seen.add(sample);
    } else if (counts.has(place)) continue;
    counts.set(place, (counts.get(place) ?? 0) + 1);
  }
  for (const n of state.notes) {
    if (n.traitId && n.roundId && n.unitId) counts.set(`${n.roundId}/${n.unitId}/${n.traitId}`, 1);
  }
  counted.set(state, counts);
  return counts;
}

/** Units that are expected in a round: all but the dead. */
export function livingUnits(state: TrialState) {
  return state.plan.units.filter((u) => !state.deaths.has(u.id));
}

/** How many samples of each trait a round wants of a unit. */
function wantedSamples(state: TrialState, round: Round): [traitId: string, samples: number][] {
  return round.traitIds.flatMap((id) => {
    const trait = state.plan.traits.find((t) => t.id === id);
    if (!trait) return [];
    return [[id, trait.kind === 'text' ? 1 : samplesIn(state.plan, trait)]];
  });
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
  const counts = samplesByPlace(state);
  const started = new Set([...state.observations, ...state.notes].map((o) => o.roundId));
  return [...state.plan.rounds]
    .sort((a, b) => a.day - b.day)
    .map((round) => {
      const date = dateOfDay(state.plan.startDate, round.day);
      const wanted = wantedSamples(state, round);
      const unitsDone = started.has(round.id)
        ? living.filter((u) =>
            wanted.every(([trait, n]) => (counts.get(`${round.id}/${u.id}/${trait}`) ?? 0) >= n),
          ).length
        : 0;
      const done = living.length > 0 && unitsDone === living.length;
      return {
        round,
        date,
        status: done ? 'done' : date > today ? 'upcoming' : date === today ? 'due' : 'overdue',
        unitsDone,
        unitsWanted: living.length,
        started: started.has(round.id),
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
