import { describe, expect, it } from 'vitest';
import {
  type Act,
  actPath,
  actVerb,
  actsOn,
  atHandUntil,
  byPlace,
  calendarEvents,
  dayWords,
  durationWords,
  monthOf,
  restWords,
  weekFrom,
} from './acts';
import { dueReminders } from './reminders';

const act = (over: Partial<Act> = {}): Act => ({
  id: 'water-0',
  kind: 'task',
  task: 'Water, day 3',
  date: '2026-03-04',
  at: null,
  what: 'Water',
  why: '',
  atHand: 'jug, cloth',
  caution: '',
  minutes: 10,
  done: 0,
  wanted: 1,
  state: 'open',
  to: null,
  missedBefore: 0,
  trialId: 't',
  question: 'Which?',
  short: 'cress, TST',
  code: 'TST',
  unitNoun: 'tray',
  place: 'Shelf',
  doneOn: null,
  ...over,
});
const today = '2026-03-04';

describe('a day’s acts', () => {
  it('are its own, and today what is left over or was done today', () => {
    const acts = [
      act(),
      act({ id: 'late', date: '2026-03-02' }),
      act({ id: 'done late', date: '2026-03-02', state: 'done', doneOn: today }),
      act({ id: 'done then', date: '2026-03-02', state: 'done', doneOn: '2026-03-02' }),
      act({ id: 'tomorrow', date: '2026-03-05' }),
    ];
    expect(actsOn(acts, today, today).map((a) => a.id)).toEqual(['water-0', 'late', 'done late']);
    expect(actsOn(acts, '2026-03-05', today).map((a) => a.id)).toEqual(['tomorrow']);
    expect(restWords(actsOn(acts, today, today), today)).toBe('One is done. One is left over from before.');
  });
  it('are counted in words, by place', () => {
    expect(dayWords([])).toBe('nothing is due');
    expect(dayWords([act({ state: 'done' })])).toBe('all is done');
    expect(dayWords([act()])).toBe('one task, 10 min');
    const three = [act(), act({ place: 'Bed', minutes: 40 }), act({ place: 'Bed', minutes: 25 })];
    expect(dayWords(three)).toBe('two places, three tasks, an hour and a quarter');
    expect(byPlace(three).map((p) => [p.place, p.minutes])).toEqual([
      ['Shelf', 10],
      ['Bed', 65],
    ]);
    expect([50, 60, 95, 150].map(durationWords)).toEqual([
      'three quarters of an hour',
      'an hour',
      'an hour and a half',
      'two and a half hours',
    ]);
    expect(restWords([act()], today)).toBe('Nothing is left over from before.');
  });
  it('say what to have at hand, each thing once', () => {
    const acts = [act(), act({ atHand: 'jug; scale' }), act({ atHand: 'lens', date: '2026-03-20' })];
    expect(atHandUntil(acts, '2026-03-10')).toEqual(['jug', 'cloth', 'scale']);
  });
  it('lead to where they are done', () => {
    expect(actPath(act())).toBeNull();
    expect(actPath(act({ to: 'rounds?round=r' }))).toBe('/trial/t/rounds?round=r');
    expect(actVerb(act({ kind: 'round' }))).toBe('Start the round');
    expect(actVerb(act({ kind: 'mix', done: 1 }))).toBe('Go on');
    expect(actVerb(act({ kind: 'turn' }))).toBe('See the card');
  });
  it('open ones alone go into a calendar', () => {
    expect(calendarEvents([act(), act({ state: 'done' })])).toMatchObject([
      {
        uid: 't-water-0@palazzo',
        summary: 'TST: Water',
        location: 'Shelf',
        description: 'Which?\nAt hand: jug, cloth.',
      },
    ]);
  });
});

describe('days', () => {
  it('of a week and of a month, Monday first', () => {
    expect(weekFrom('2026-02-26')).toEqual(
      ['26', '27', '28']
        .map((d) => `2026-02-${d}`)
        .concat(['01', '02', '03', '04'].map((d) => `2026-03-${d}`)),
    );
    const month = monthOf('2026-03-15');
    expect([month[0]![0], month.at(-1)![6]]).toEqual(['2026-02-23', '2026-04-05']);
  });
});

describe('reminders', () => {
  it('come once, at the act’s time and in the morning', () => {
    const acts = [act({ at: '07:30' }), act({ id: 'later', at: '18:00' })];
    const ids = (now: string, told: string[] = []) =>
      dueReminders(acts, today, now, new Set(told)).map((r) => r.id);
    expect(ids('07:29')).toEqual([]);
    expect(ids('07:31')).toEqual([`${today}/t/water-0`]);
    expect(ids('07:31', [`${today}/t/water-0`])).toEqual([]);
    expect(ids('08:00')).toEqual([`${today}/morning`]);
    expect(ids('12:00')).toEqual([]);
  });
});
