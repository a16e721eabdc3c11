import { answeredIn } from '../log/asked';
import { type TrialState, ofKind } from '../log/state';
import type { EntryId } from '../model/ids';
import type { Round } from '../model/plan';
import { dateOfDay, dayOfDate } from '../plan/days';
import { isOver } from '../plan/ended';
import { planIndex } from '../plan/planIndex';

/** `closed`: given up with a reason, whatever of it was made */
type RoundStatus = 'done' | 'closed' | 'due' | 'overdue' | 'upcoming';

export interface RoundProgress {
  round: Round;
  /** calendar date, YYYY-MM-DD */
  date: string;
  status: RoundStatus;
  /** units with all that was asked of them, out of those that were asked anything */
  unitsDone: number;
  unitsWanted: number;
  started: boolean;
  /** why nothing more comes of it, and the line that says so */
  closed?: { reason: string; entryId: EntryId };
}

/** The name a round is closed by in the log. @example roundTask({ name: 'Week 2', day: 14 }) // 'the round “Week 2” of day 14' */
export const roundTask = ({ name, day }: Pick<Round, 'name' | 'day'>): string =>
  `the round “${name}” of day ${day}`;

/** Whether something is still to be made of a round. */
export const isOpenRound = ({ status }: Pick<RoundProgress, 'status'>): boolean =>
  status !== 'done' && status !== 'closed';

/** How far a round is, kept by the values, deaths and remarks it rests on. */
type HowFar = Pick<RoundProgress, 'unitsDone' | 'unitsWanted'> & { open: number };
const counted = new WeakMap<object, { on: readonly unknown[]; far: HowFar }>();

function howFar(state: TrialState, round: Round): HowFar {
  const key = state.byRound.get(round.id);
  const on = [state.notes, state.deaths, state.deadSamples];
  const before = key && counted.get(key);
  // “Days until” asks by what was seen in other rounds.
  const alone = round.traitIds.every((id) => planIndex(state.plan).trait(id)?.kind !== 'time');
  if (before && alone && before.on.every((x, i) => x === on[i])) return before.far;
  const answeredTraits = round.traitIds.flatMap((id) => {
    const trait = planIndex(state.plan).trait(id);
    return trait ? [answeredIn(state, trait, round)] : [];
  });
  const asked = new Set(answeredTraits.flatMap((t) => t.asked));
  const open = new Set(answeredTraits.flatMap((t) => t.open));
  const short = new Set(answeredTraits.flatMap((t) => t.asked.filter((u) => !t.inFull.includes(u))));
  const far = { unitsWanted: asked.size, unitsDone: asked.size - short.size, open: open.size };
  if (key && alone) counted.set(key, { on, far });
  return far;
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
  const remarked = new Set(state.notes.map((n) => n.roundId));
  const closedBy = new Map(
    ofKind(state, 'taskSkipped').map((e) => [e.body.task, { reason: e.body.reason, entryId: e.standsFrom }]),
  );
  return [...state.plan.rounds]
    .sort((a, b) => a.day - b.day)
    .map((round) => {
      const date = dateOfDay(state.plan.startDate, round.day);
      const started = state.byRound.has(round.id) || remarked.has(round.id);
      const { unitsDone, unitsWanted, open } = howFar(state, round);
      const finished = open === 0 && state.plan.units.length > 0;
      const closed = finished ? undefined : closedBy.get(roundTask(round));
      return {
        round,
        date,
        status: finished
          ? 'done'
          : closed
            ? 'closed'
            : date > today
              ? 'upcoming'
              : date === today
                ? 'due'
                : 'overdue',
        unitsDone,
        unitsWanted,
        started,
        ...(closed && { closed }),
      };
    });
}

/**
 * Which of several visits a page opens: once all is taken of the one in hand, what is open on its day, or that visit
 * itself, so that whoever notices a slip in the last value still stands where it was typed; else what is due and open;
 * else the nearest day, the earlier one of two as near.
 *
 * @param visits in order of date
 * @param today YYYY-MM-DD
 * @param isOpen whether something is left to take at a visit
 * @param inHand the visit that was open until now; left out on arrival
 * @returns undefined where there is no visit
 * @example
 * visitToOpen(roundProgress(state, today), today, isOpenRound)
 */
export function visitToOpen<V extends { date: string }>(
  visits: readonly V[],
  today: string,
  isOpen: (visit: V) => boolean,
  inHand?: V,
): V | undefined {
  const away = (v: V) => Math.abs(dayOfDate(today, v.date));
  const onDayOf = (visit?: V) => visits.find((v) => v.date === visit?.date && isOpen(v)) ?? visit;
  if (inHand && !isOpen(inHand)) return onDayOf(inHand);
  return (
    dueVisit(visits, today, isOpen) ?? onDayOf(inHand ?? [...visits].sort((a, b) => away(a) - away(b))[0])
  );
}

/** The first visit that is due and has something left to take. @param visits in order of date @param today YYYY-MM-DD */
export const dueVisit = <V extends { date: string }>(
  visits: readonly V[],
  today: string,
  isOpen: (visit: V) => boolean,
): V | undefined => visits.find((v) => v.date <= today && isOpen(v));

export type TrialStage = 'planning' | 'running' | 'finished';

/** Planning until sealed; finished when every planned round is done, or a week past the last one. */
export function stageOf(state: TrialState, today: string): TrialStage {
  if (!state.seal) return 'planning';
  const rounds = roundProgress(state, today);
  const done = rounds.length > 0 && !rounds.some(isOpenRound);
  return done || isOver(state.plan, today) ? 'finished' : 'running';
}
