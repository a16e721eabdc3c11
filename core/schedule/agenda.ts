import { localDay } from '../log/localDay';
import { type TrialState, ofKind } from '../log/state';
import { lateMix, mixesDue } from '../mixing/mixesInLog';
import { givenPlan } from '../mixing/givenPlan';
import { programmeDays } from '../mixing/programme';
import { END_EVENT, type PlannedTask } from '../model/task';
import { kindOf } from '../model/traitKinds';
import { dateOfDay, dayOfDate } from '../plan/days';
import { planIndex } from '../plan/planIndex';
import { rotationPlan } from '../design/rotation';
import { turnTask } from './tasks';
import { roundProgress } from './rounds';

type AgendaKind = 'round' | 'mix' | 'turn' | 'task';

/** One line of what is to be done. */
export interface AgendaItem {
  /** stays the same for the same act of the same trial, whatever its date becomes */
  id: string;
  kind: AgendaKind;
  /** the name it is ticked off by in the log; null where the log shows by itself that it is done */
  task: string | null;
  date: string;
  /** HH:MM; null: any time of the day */
  at: string | null;
  what: string;
  why: string;
  atHand: string;
  caution: string;
  minutes: number;
  /** how far it is: units or bottles done, out of how many; null where it is one act */
  done: number;
  wanted: number;
  state: 'open' | 'done' | 'skipped';
  /** where it is done, within the trial; null: at hand */
  to: string | null;
  /** earlier occurrences that were missed too */
  missedBefore: number;
}

/** A task that waits for something to happen. */
export interface WaitingTask {
  id: string;
  event: string;
  what: string;
  days: number;
}

/** What is measured in these is measured with a ruler. */
const lengthUnits: ReadonlySet<string> = new Set(['mm', 'cm', 'm', 'in', 'ft']);

/** Minutes it takes, roughly (practice): a value, a bottle, a unit moved. */
export const MINUTES_A_VALUE = 0.3;
export const MINUTES_A_BOTTLE = 5;
export const MINUTES_A_MOVE = 0.5;
/** A task without an end is repeated at most so often. */
const MOST_TIMES = 800;

/** Tasks of the plan, and those added since. */
export const plannedTasks = (state: TrialState): PlannedTask[] => [
  ...(state.plan.tasks ?? []),
  ...ofKind(state, 'taskPlanned').map((e) => e.body.task),
];

const endDay = (state: TrialState): number => Math.max(0, ...state.plan.rounds.map((r) => r.day));

/** Day of the trial on which an event was reached; null while it wasn't. */
function dayOfEvent(state: TrialState, event: string | null): number | null {
  if (event === null) return 0;
  if (event === END_EVENT) return endDay(state);
  const reached = ofKind(state, 'milestone').find((e) => e.body.event === event);
  return reached ? dayOfDate(state.plan.startDate, localDay(reached)) : null;
}

/** Days of the trial a task falls on; empty while what it follows hasn't happened. */
export function daysOfTask(state: TrialState, task: PlannedTask): number[] {
  const from = dayOfEvent(state, task.after);
  if (from === null) return [];
  const first = from + task.day;
  if (task.everyDays === null) return [first];
  const last = task.untilDay === null ? endDay(state) : from + task.untilDay;
  const days: number[] = [];
  for (let day = first; day <= last && days.length < MOST_TIMES; day += task.everyDays) days.push(day);
  return days;
}

/** The name a task of a day is ticked off by. @example taskOn('Cover off', 4) // 'Cover off, day 4' */
export const taskOn = (what: string, day: number): string => `${what}, day ${day}`;

const skippedTasks = (state: TrialState) => new Set(ofKind(state, 'taskSkipped').map((e) => e.body.task));

/** The day something was first measured, weighed or picked; infinity: not yet. */
const firstValueDay = (state: TrialState): number =>
  Math.min(
    ...(['measurement', 'weighing', 'pick'] as const).flatMap((kind) => {
      const [first] = ofKind(state, kind);
      return first ? [dayOfDate(state.plan.startDate, localDay(first))] : [];
    }),
  );

const tasks = (state: TrialState): AgendaItem[] => {
  const { plan } = state;
  const skipped = skippedTasks(state);
  const begun = firstValueDay(state);
  return plannedTasks(state).flatMap((t) =>
    daysOfTask(state, t).flatMap((day, n) => {
      const name = taskOn(t.what, day);
      const done = state.tasksDone.has(name);
      // What had to be done before the start can’t be done once something was measured on a later day.
      const isOver = day <= 0 && day < begun && Number.isFinite(begun) && t.everyDays === null;
      if (isOver && !done && !skipped.has(name)) return [];
      return {
        id: `${t.key}-${n}`,
        kind: 'task' as const,
        task: name,
        date: dateOfDay(plan.startDate, day),
        at: t.at,
        what: t.what,
        why: t.why,
        atHand: t.atHand,
        caution: t.caution,
        minutes: t.minutes,
        done: done ? 1 : 0,
        wanted: 1,
        state: done ? ('done' as const) : skipped.has(name) ? ('skipped' as const) : ('open' as const),
        to: t.key === 'photo' ? 'rounds?view=photos' : null,
        missedBefore: 0,
      };
    }),
  );
};

const rounds = (state: TrialState, today: string): AgendaItem[] =>
  roundProgress(state, today).map((r) => {
    const traits = r.round.traitIds.flatMap((id) => planIndex(state.plan).trait(id) ?? []);
    const weighed = traits.every((t) => kindOf(t).takenBy === 'scale');
    return {
      id: `round-${r.round.id}`,
      kind: 'round' as const,
      task: null,
      date: r.date,
      at: null,
      what: `${r.round.name}: ${traits.map((t) => t.name.toLowerCase()).join(', ')}`,
      why:
        r.round.day === endDay(state)
          ? `The end, the same day for all.${state.plan.finishingRule ? ` The rule: ${state.plan.finishingRule}` : ''}`
          : 'All units on one day, in the order they stand.',
      atHand: [
        ...(traits.some((t) => kindOf(t).takenBy === 'scale') ? ['scale', 'bowl'] : []),
        ...(traits.some((t) => lengthUnits.has(t.unit)) ? ['ruler'] : []),
      ].join(', '),
      caution: '',
      minutes: Math.ceil(r.unitsWanted * traits.length * MINUTES_A_VALUE),
      done: r.unitsDone,
      wanted: r.unitsWanted,
      state:
        r.status === 'done'
          ? ('done' as const)
          : r.status === 'closed'
            ? ('skipped' as const)
            : ('open' as const),
      to: `${weighed ? 'weigh-in' : 'rounds'}?round=${r.round.id}`,
      missedBefore: 0,
    };
  });

function mixes(state: TrialState, now: number, to: number): AgendaItem[] {
  const late = lateMix(state, now);
  const days = programmeDays(givenPlan(state)).filter((d) => d >= Math.max(0, now) && d <= to);
  return [...(late ? [late.day] : []), ...days].flatMap((day) => {
    const due = mixesDue(state, day);
    const missing = day < now ? late!.missing : due.wanted - due.done;
    const { wanted } = due;
    if (wanted === 0) return [];
    return {
      id: `mix-${day}`,
      kind: 'mix' as const,
      task: null,
      date: dateOfDay(state.plan.startDate, day),
      at: null,
      what: `Mix ${wanted === 1 ? 'the bottle' : `${wanted} bottles`}, and feed`,
      why: 'Every contender gets its feed on the same day.',
      atHand: 'scale or syringe, a bottle each, water',
      caution: '',
      minutes: wanted * MINUTES_A_BOTTLE,
      done: wanted - missing,
      wanted,
      state: missing === 0 ? ('done' as const) : ('open' as const),
      to: `mixing?day=${day}`,
      missedBefore: 0,
    };
  });
}

const turns = (state: TrialState): AgendaItem[] => {
  const { plan } = state;
  if (!plan.rotation) return [];
  const moves = rotationPlan(plan).filter((turn) => turn.number > 0);
  const skipped = skippedTasks(state);
  return moves.map(({ number, day }) => {
    const done = state.tasksDone.has(turnTask(number));
    return {
      id: `turn-${number}`,
      kind: 'turn' as const,
      task: null,
      date: dateOfDay(plan.startDate, day),
      at: null,
      what: `Turn ${number}: units change positions`,
      why: 'Each spends equal time at each position.',
      atHand: 'the card of turns',
      caution: '',
      minutes: Math.ceil(plan.units.length * MINUTES_A_MOVE),
      done: done ? 1 : 0,
      wanted: 1,
      state: done
        ? ('done' as const)
        : skipped.has(turnTask(number))
          ? ('skipped' as const)
          : ('open' as const),
      to: 'layout?view=turns',
      missedBefore: 0,
    };
  });
};

const BEFORE_SEAL = {
  planned: 'all as planned',
  notDone: 'not done',
  typed: 'written down by hand',
} as const;
/** What became of the days before a plan was sealed that began in the past. */
export type BeforeSeal = keyof typeof BEFORE_SEAL;

/** The name the answer is ticked off by. @example beforeSealTask('typed') // 'said of the days before the seal: written down by hand' */
export const beforeSealTask = (answer: BeforeSeal): string =>
  `said of the days before the seal: ${BEFORE_SEAL[answer]}`;

/** What was said of the days before the seal; null: nobody was asked, or the question stands. */
export const saidBeforeSeal = (state: TrialState): BeforeSeal | null =>
  (Object.keys(BEFORE_SEAL) as BeforeSeal[]).find((a) => state.tasksDone.has(beforeSealTask(a))) ?? null;

/** Everything from the start to a date, done or not. */
function allActs(state: TrialState, today: string, until: string): AgendaItem[] {
  const { startDate } = state.plan;
  return [
    ...rounds(state, today),
    ...mixes(state, dayOfDate(startDate, today), dayOfDate(startDate, until)),
    ...turns(state),
    ...tasks(state),
  ].filter((i) => i.date <= until);
}

/** Whether an act lay before the day a plan that began in the past was sealed. */
function liesBeforeSeal({ seal, plan }: TrialState): (act: Pick<AgendaItem, 'date'>) => boolean {
  const sealed = seal && localDay(seal);
  return ({ date }) => sealed !== null && plan.startDate < sealed && date < sealed;
}

/**
 * Open acts of the days before the seal of a trial that began before its plan was sealed here: what becomes of them is asked
 * once. None where that was answered.
 */
export function actsBeforeSeal(state: TrialState): AgendaItem[] {
  if (!state.seal || saidBeforeSeal(state) !== null) return [];
  const sealed = localDay(state.seal);
  return allActs(state, sealed, sealed)
    .filter((i) => i.state === 'open' && liesBeforeSeal(state)(i))
    .sort((a, b) => a.date.localeCompare(b.date));
}

/**
 * What a sealed trial asks for from its start to a date, by date and time. A task is told again while it is open; of one
 * that comes again and again and was missed, only the last time.
 *
 * @param today YYYY-MM-DD: up to then open work is overdue
 * @param until last date looked at
 */
export function agendaOf(state: TrialState, today: string, until: string): AgendaItem[] {
  if (!state.seal) return [];
  const isBefore = liesBeforeSeal(state);
  const beforeSeal = saidBeforeSeal(state);
  // What lies before the seal is asked about once, not told line by line; feeds are past mending unless they are typed.
  const isTold = (i: AgendaItem) =>
    i.state !== 'open' ||
    !isBefore(i) ||
    (beforeSeal !== null && (i.kind !== 'mix' || beforeSeal === 'typed'));
  const all = allActs(state, today, until).filter(isTold);
  const late = new Map<string, AgendaItem[]>();
  for (const i of all) {
    if (i.state !== 'open' || i.date >= today || i.kind === 'round') continue;
    const series = i.kind === 'task' ? i.what : i.kind;
    late.set(series, [...(late.get(series) ?? []), i]);
  }
  const folded = new Map<AgendaItem, number>();
  for (const missed of late.values()) {
    const sorted = [...missed].sort((a, b) => a.date.localeCompare(b.date));
    sorted.forEach((i, k) => folded.set(i, k === sorted.length - 1 ? k : -1));
  }
  return all
    .flatMap((i) => {
      const before = folded.get(i);
      return before === undefined ? [i] : before < 0 ? [] : [{ ...i, missedBefore: before }];
    })
    .sort((a, b) => a.date.localeCompare(b.date) || (a.at ?? '99').localeCompare(b.at ?? '99'));
}

/** Tasks whose day isn't known yet, since what they follow hasn't happened. */
export const waitingTasks = (state: TrialState): WaitingTask[] =>
  state.seal
    ? plannedTasks(state)
        .filter((t) => dayOfEvent(state, t.after) === null)
        .map((t) => ({ id: t.key, event: t.after!, what: t.what, days: t.day }))
    : [];

/** Where a trial stands: its areas, as its tasks are grouped by. @example placeOf(plan) // 'Level 1, Level 2' */
export const placeOf = (plan: TrialState['plan']): string =>
  plan.areas.length === 0 ? 'No area yet' : plan.areas.map((a) => a.name).join(', ');
