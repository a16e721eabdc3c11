import { describe, expect, it } from 'vitest';
import type { Entry } from '../log/entry';
import { deriveState } from '../log/state';
import type { Plan } from '../model/plan';
import { END_EVENT, PlannedTask } from '../model/task';
import { planSha256 } from '../plan/seal';
import { entry, heightTrait, plan, trait } from '../testing/trial';
import { agendaOf, daysOfTask, placeOf, plannedTasks, taskOn, waitingTasks } from './agenda';
import { protocols } from './protocols';
import { events, tasksOf } from './protocols/tasks';

const task = (over: Partial<PlannedTask> = {}): PlannedTask => ({
  key: 'water',
  what: 'Water',
  why: '',
  atHand: 'jug',
  caution: '',
  minutes: 5,
  after: null,
  day: 1,
  everyDays: null,
  untilDay: null,
  at: null,
  ...over,
});
// start 2026-03-01; rounds on days 3 and 10 (r1, r2)
const base = plan({ replicates: 2, traits: [trait(), heightTrait()] });
const stateOf = (tasks: PlannedTask[], log: Entry[] = []) => {
  const p: Plan = { ...base, tasks };
  const seal = { ...entry({ kind: 'seal', planSha256: planSha256(p) }), at: '2026-02-27T09:00:00.000Z' };
  return deriveState(p, [seal, ...log]);
};
const lines = (tasks: PlannedTask[], today: string, until: string, log: Entry[] = []) =>
  agendaOf(stateOf(tasks, log), today, until)
    .filter((i) => i.kind === 'task')
    .map((i) => [i.date.slice(5), i.what, i.state, i.missedBefore]);
const last = Math.max(...base.rounds.map((r) => r.day));

describe('days of a task', () => {
  it('are counted from the start, once or again and again until a day or the end', () => {
    expect(daysOfTask(stateOf([]), task({ day: -1 }))).toEqual([-1]);
    expect(daysOfTask(stateOf([]), task({ day: 2, everyDays: 3, untilDay: 8 }))).toEqual([2, 5, 8]);
    expect(daysOfTask(stateOf([]), task({ everyDays: 1 })).at(-1)).toBe(last);
    expect(daysOfTask(stateOf([]), task({ after: END_EVENT, day: 1 }))).toEqual([last + 1]);
  });
  it('wait for what they follow, and move with it', () => {
    const thin = task({ key: 'thin', what: 'Thin', after: 'seedlings up', day: 3 });
    expect(lines([thin], '2026-03-02', '2026-04-01')).toEqual([]);
    expect(waitingTasks(stateOf([thin]))).toEqual([
      { id: 'thin', event: 'seedlings up', what: 'Thin', days: 3 },
    ]);
    const up = entry({ kind: 'milestone', event: 'seedlings up' }, 'up', 0);
    const early = { ...up, at: '2026-03-04T09:00:00Z', offsetMin: 0 };
    const late = { ...up, at: '2026-03-06T09:00:00Z', offsetMin: 0 };
    expect(lines([thin], '2026-03-02', '2026-04-01', [early])).toEqual([['03-07', 'Thin', 'open', 0]]);
    expect(lines([thin], '2026-03-02', '2026-04-01', [late])).toEqual([['03-09', 'Thin', 'open', 0]]);
    expect(waitingTasks(stateOf([thin], [late]))).toEqual([]);
  });
});

describe('the agenda', () => {
  it('asks for nothing before the seal', () => {
    expect(agendaOf(deriveState({ ...base, tasks: [task()] }, []), '2026-03-05', '2026-04-01')).toEqual([]);
  });
  it('keeps what is overdue until it is done or skipped with a reason', () => {
    const once = task({ what: 'Cover off', day: 2 });
    expect(lines([once], '2026-03-08', '2026-03-08')).toEqual([['03-03', 'Cover off', 'open', 0]]);
    const name = taskOn('Cover off', 2);
    const ticked = entry({ kind: 'taskDone', task: name });
    expect(lines([once], '2026-03-08', '2026-03-08', [ticked])).toEqual([['03-03', 'Cover off', 'done', 0]]);
    const skipped = entry({ kind: 'taskSkipped', task: name, reason: 'no cover used' });
    expect(lines([once], '2026-03-08', '2026-03-08', [skipped])[0]![2]).toBe('skipped');
  });
  it('of a task that comes again tells the last time missed, and how many before', () => {
    const daily = task({ everyDays: 1, untilDay: 9 });
    expect(lines([daily], '2026-03-05', '2026-03-06')).toEqual([
      ['03-04', 'Water', 'open', 2],
      ['03-05', 'Water', 'open', 0],
      ['03-06', 'Water', 'open', 0],
    ]);
  });
  it('holds rounds with how far they are, by date and time, and tasks added later', () => {
    const own = entry({
      kind: 'taskPlanned',
      task: task({ key: 'own', what: 'Photos', day: 3, at: '07:30' }),
    });
    const items = agendaOf(stateOf([task({ day: 3 })], [own]), '2026-03-04', '2026-03-04');
    expect(items.map((i) => i.kind)).toEqual(['task', 'round', 'task']);
    expect(items[0]).toMatchObject({ at: '07:30', what: 'Photos' });
    expect(items[1]).toMatchObject({ kind: 'round', done: 0, wanted: 4, state: 'open' });
  });
  it('gives an act the same id whatever its date', () => {
    const ids = (day: number) =>
      agendaOf(stateOf([task({ day })]), '2026-03-01', '2026-05-01').flatMap((i) =>
        i.kind === 'task' ? i.id : [],
      );
    expect(ids(2)).toEqual(ids(5));
  });
  it('says where a trial stands', () => {
    expect(placeOf({ ...base, areas: [] })).toBe('No area yet');
    expect(placeOf(base)).toBe(base.areas.map((a) => a.name).join(', '));
  });
});

describe('tasks of protocols', () => {
  it('are there for every kind of trial, each whole and named once', () => {
    for (const p of protocols) {
      const tasks = tasksOf(p.id);
      expect(tasks.length, p.id).toBeGreaterThan(1);
      expect(new Set(tasks.map((t) => t.key)).size, p.id).toBe(tasks.length);
      for (const t of tasks) expect(PlannedTask.safeParse(t).error, t.key).toBeUndefined();
      const known = new Set<string | null>([null, END_EVENT, ...Object.values(events)]);
      expect(tasks.every((t) => known.has(t.after))).toBe(true);
    }
    expect(plannedTasks(stateOf(tasksOf('pods'))).some((t) => t.after === events.emergence)).toBe(true);
  });
});
