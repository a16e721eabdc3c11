import dayjs from 'dayjs';
import type { CalendarEvent } from '~core/formats/iCalendar';
import { localDay } from '~core/log/localDay';
import { type TrialState, ofKind } from '~core/log/state';
import { countWord, plural } from '~core/quantity/format';
import { type AgendaItem, type WaitingTask, agendaOf, placeOf, waitingTasks } from '~core/schedule/agenda';

/** A line of the agenda, with the trial it belongs to. */
export interface Act extends AgendaItem {
  trialId: string;
  question: string;
  /** what the trial is called where its question is too long */
  short: string;
  /** its code */
  code: string;
  unitNoun: string;
  place: string;
  /** the day it was ticked off; null: it isn't, or the log doesn't say */
  doneOn: string | null;
}

export interface Waiting extends WaitingTask {
  trialId: string;
  question: string;
  short: string;
}

/** A trial as far as the agenda goes. */
export interface ActiveTrial {
  id: string;
  state: TrialState;
  /** plan as it may be shown */
  question: string;
}

/** What a trial is called in a list. @example shortNameOf(plan) // 'parsley, PAR' */
const shortNameOf = ({ crop, code }: TrialState['plan']): string =>
  crop ? `${crop.toLowerCase()}, ${code}` : code;

/** Everything all trials ask for up to a date. */
export const actsOf = (trials: readonly ActiveTrial[], today: string, until: string): Act[] =>
  trials.flatMap(({ id, state, question }) => {
    const ticked = new Map(ofKind(state, 'taskDone').map((e) => [e.body.task, localDay(e)]));
    return agendaOf(state, today, until).map((item) => ({
      ...item,
      trialId: id,
      question,
      short: shortNameOf(state.plan),
      code: state.plan.code,
      unitNoun: state.plan.unitNoun,
      place: placeOf(state.plan),
      doneOn: (item.task !== null && ticked.get(item.task)) || null,
    }));
  });

export const waitingOf = (trials: readonly ActiveTrial[]): Waiting[] =>
  trials.flatMap(({ id, state, question }) =>
    waitingTasks(state).map((w) => ({ ...w, trialId: id, question, short: shortNameOf(state.plan) })),
  );

/** What a day's list shows: its own acts, and today what is open from before or was done today. */
export const actsOn = (acts: readonly Act[], day: string, today: string): Act[] =>
  acts.filter((a) =>
    day !== today
      ? a.date === day
      : a.date === today || (a.date < today && (a.state === 'open' || a.doneOn === today)),
  );

export const isLate = (a: Act, today: string): boolean => a.state === 'open' && a.date < today;

/** Acts by place, so that one walk does all of a place. */
export function byPlace(acts: readonly Act[]): { place: string; acts: Act[]; minutes: number }[] {
  const places = new Map<string, Act[]>();
  for (const a of acts) places.set(a.place, [...(places.get(a.place) ?? []), a]);
  return [...places].map(([place, list]) => ({
    place,
    acts: list,
    minutes: list.reduce((sum, a) => sum + (a.state === 'open' ? a.minutes : 0), 0),
  }));
}

/** A stretch of time as people say it. @example durationWords(75) // 'an hour and a quarter' */
export function durationWords(minutes: number): string {
  if (minutes < 50) return `${Math.max(1, Math.round(minutes))} min`;
  const quarters = Math.round(minutes / 15);
  const hours = Math.floor(quarters / 4);
  const rest = ['', ' and a quarter', ' and a half', ' and three quarters'][quarters % 4]!;
  return hours === 0
    ? 'three quarters of an hour'
    : hours === 1
      ? `an hour${rest}`
      : `${countWord(hours)}${rest} hours`;
}

const counted = (n: number, noun: string) => `${countWord(n)} ${n === 1 ? noun : plural(noun)}`;

/** “three places, eight acts, an hour and a quarter” of what is open. */
export function dayWords(acts: readonly Act[]): string {
  const open = acts.filter((a) => a.state === 'open');
  if (open.length === 0) return acts.length > 0 ? 'all is done' : 'nothing is due';
  const places = byPlace(open);
  const minutes = places.reduce((sum, p) => sum + p.minutes, 0);
  return [
    ...(places.length > 1 ? [counted(places.length, 'place')] : []),
    counted(open.length, 'task'),
    durationWords(minutes),
  ].join(', ');
}

/** “Two are done. One is left over from before.” @param asked whether it is asked what became of earlier days */
export function restWords(acts: readonly Act[], today: string, asked = false): string {
  const [done, late] = [
    acts.filter((a) => a.state === 'done').length,
    acts.filter((a) => isLate(a, today)).length,
  ];
  const is = (n: number) => (n === 1 ? 'is' : 'are');
  const word = (n: number) => countWord(n).replace(/^./, (c) => c.toUpperCase());
  return [
    done > 0 ? `${word(done)} ${is(done)} done.` : '',
    late > 0
      ? `${word(late)} ${is(late)} left over from before.`
      : asked
        ? ''
        : 'Nothing is left over from before.',
  ]
    .filter(Boolean)
    .join(' ');
}

/** What to have at hand for open acts up to a date, each named once. */
export function atHandUntil(acts: readonly Act[], until: string): string[] {
  const things = acts
    .filter((a) => a.state === 'open' && a.date <= until)
    .flatMap((a) => a.atHand.split(/[,;]\s*/))
    .map((t) => t.trim())
    .filter(Boolean);
  return [...new Set(things)];
}

/** Seven days from a date. */
export const weekFrom = (date: string): string[] =>
  Array.from({ length: 7 }, (_, i) => dayjs(date).add(i, 'day').format('YYYY-MM-DD'));

/** The weeks, Monday first, that hold the month of a date. */
export function monthOf(date: string, weekStart = 1): string[][] {
  const first = dayjs(date).startOf('month');
  const begin = first.subtract((first.day() - weekStart + 7) % 7, 'day');
  const weeks: string[][] = [];
  for (let from = begin; weeks.length === 0 || from.isSame(first, 'month'); from = from.add(7, 'day')) {
    weeks.push(weekFrom(from.format('YYYY-MM-DD')));
  }
  return weeks;
}

/** Open acts as a calendar takes them. */
export const calendarEvents = (acts: readonly Act[]): CalendarEvent[] =>
  acts
    .filter((a) => a.state === 'open')
    .map((a) => ({
      uid: `${a.trialId}-${a.id}@palazzo`,
      date: a.date,
      at: a.at,
      minutes: a.minutes,
      summary: `${a.code}: ${a.what}`,
      description: [
        a.question,
        a.why,
        a.atHand && `At hand: ${a.atHand}.`,
        a.caution && `Caution: ${a.caution}`,
      ]
        .filter(Boolean)
        .join('\n'),
      location: a.place,
    }));

/** Where an act is done. */
export const actPath = (a: Act): string | null => (a.to === null ? null : `/trial/${a.trialId}/${a.to}`);

/** What its button says. */
export const actVerb = (a: Act): string => {
  if (a.kind === 'round') return a.done > 0 ? 'Go on' : 'Start the round';
  if (a.kind === 'mix') return a.done > 0 ? 'Go on' : 'Start mixing';
  return a.kind === 'turn' ? 'See the card' : 'Open';
};
