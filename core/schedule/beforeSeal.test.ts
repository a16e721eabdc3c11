import { describe, expect, it } from 'vitest';
import type { Entry } from '../log/entry';
import { deriveState } from '../log/state';
import type { Plan } from '../model/plan';
import { PlannedTask } from '../model/task';
import { planSha256 } from '../plan/seal';
import { entry, height, heightTrait, plan, trait, unitId } from '../testing/trial';
import { actsBeforeSeal, agendaOf, saidBeforeSeal } from './agenda';
import { linesBeforeSeal } from './beforeSeal';
import { roundProgress } from './rounds';

const task = (what: string, day: number, over: Partial<PlannedTask> = {}) =>
  PlannedTask.parse({
    ...{ key: what, what, why: '', atHand: '', caution: '', minutes: 5, after: null, day },
    ...{ everyDays: null, untilDay: null, at: null, ...over },
  });
const p: Plan = {
  // start 2026-03-01; rounds on days 3 and 10
  ...plan({ replicates: 2, traits: [trait(), heightTrait()] }),
  tasks: [task('Water', 1, { everyDays: 2, untilDay: 9, at: '08:30' }), task('Sow', 0)],
};
const sealedOn = (day: string, log: Entry[] = [], of = p) => {
  const seal = {
    ...entry({ kind: 'seal', planSha256: planSha256(of) }),
    at: `${day}T09:00:00.000Z`,
    offsetMin: 0,
  };
  return deriveState(of, [seal, ...log]);
};
const asEntries = (lines: ReturnType<typeof linesBeforeSeal>): Entry[] =>
  lines.map(({ body, on }, i) => ({
    ...entry(body, `line-${i}`),
    at: `${on?.date ?? '2026-03-08'}T12:00:00.000Z`,
    offsetMin: 0,
  }));
const told = (state: ReturnType<typeof sealedOn>, today = '2026-03-08') =>
  agendaOf(state, today, today).map((i) => `${i.date.slice(5)} ${i.what.split(':')[0]} ${i.state}`);

describe('a trial that began before its plan was sealed', () => {
  const state = sealedOn('2026-03-08');
  const answered = (answer: 'planned' | 'notDone' | 'typed') =>
    sealedOn('2026-03-08', asEntries(linesBeforeSeal(state, answer)));

  it('is asked once what became of those days; they aren’t told line by line', () => {
    expect(actsBeforeSeal(state).map((a) => `${a.date.slice(5)} ${a.what.split(':')[0]}`)).toEqual([
      '03-01 Sow',
      '03-02 Water',
      `03-04 ${p.rounds[0]!.name}`,
      '03-04 Water',
      '03-06 Water',
    ]);
    expect(told(state)).toEqual(['03-08 Water open']);
  });
  it('all as planned: tasks are ticked off on their days, the round still wants its values', () => {
    const lines = linesBeforeSeal(state, 'planned');
    expect(lines.slice(1).map((l) => [l.on?.date, l.on?.at, l.body.kind])).toEqual([
      ['2026-03-01', null, 'taskDone'],
      ['2026-03-02', '08:30', 'taskDone'],
      ['2026-03-04', '08:30', 'taskDone'],
      ['2026-03-06', '08:30', 'taskDone'],
    ]);
    const after = answered('planned');
    expect(saidBeforeSeal(after)).toBe('planned');
    expect(actsBeforeSeal(after)).toEqual([]);
    expect(told(after).filter((l) => l.endsWith('open'))).toEqual([
      `03-04 ${p.rounds[0]!.name} open`,
      '03-08 Water open',
    ]);
  });
  it('not done: each is left out, and the round is closed', () => {
    const after = answered('notDone');
    expect(told(after).filter((l) => l.endsWith('open'))).toEqual(['03-08 Water open']);
    expect(roundProgress(after, '2026-03-08').map((r) => r.status)).toEqual(['closed', 'upcoming']);
  });
  it('written down by hand: all of it is told again', () => {
    expect(linesBeforeSeal(state, 'typed')).toHaveLength(1);
    expect(told(answered('typed'))).toEqual([
      '03-01 Sow open',
      `03-04 ${p.rounds[0]!.name} open`,
      '03-06 Water open',
      '03-08 Water open',
    ]);
  });
  it('nobody is asked where the plan was sealed before the start, or nothing is open', () => {
    expect(actsBeforeSeal(sealedOn('2026-03-01'))).toEqual([]);
    expect(told(sealedOn('2026-02-20'))).toContain('03-06 Water open');
    expect(actsBeforeSeal(sealedOn('2026-03-02', [], { ...p, tasks: [] }))).toEqual([]);
  });
});

it('what was to be done before the start goes once something was measured', () => {
  const on = (day: string) => ({
    ...entry(height(unitId('Water', 0), 3), 'h'),
    at: `${day}T09:00:00.000Z`,
    offsetMin: 0,
  });
  const measured = on('2026-03-04');
  const open = (log: Entry[]) =>
    told(sealedOn('2026-02-20', log)).filter((l) => l.includes('Sow') || l.includes('Water'));
  expect(open([])).toContain('03-01 Sow open');
  // On the same day it may still be to do.
  expect(open([on('2026-03-01')])).toContain('03-01 Sow open');
  expect(open([measured])).toEqual(['03-06 Water open', '03-08 Water open']);
  const sown = entry({ kind: 'taskDone', task: 'Sow, day 0' }, 's');
  expect(open([measured, sown])).toContain('03-01 Sow done');
});
