// Plain arithmetic with minutes as they were logged.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { noCosts } from '../model/judgement';
import { entry, plan, unitId } from '../testing/trial';
import { fullCost } from './fullCost';
import { minutesByUnit, tasksLogged } from './workLogged';

const p = plan({ treatments: ['Water', 'A'], replicates: 2 });
const work = (task: string, minutes: number, ...units: [string, number][]) =>
  entry({ kind: 'work', task, minutes, unitIds: units.map(([t, i]) => unitId(t, i)) });
const log = [
  work('Watering', 20),
  work('Watering', 12),
  work('Setting the pH', 18, ['A', 0], ['A', 1]),
  work('Propping up', 5, ['A', 1]),
];

describe('minutes of work', () => {
  it('are added up task by task, the longest first', () => {
    expect(tasksLogged(deriveState(p, log))).toEqual([
      { task: 'Watering', minutes: 32 },
      { task: 'Setting the pH', minutes: 18 },
      { task: 'Propping up', minutes: 5 },
    ]);
  });
  it('are shared by the units they were logged for, by all where none is named', () => {
    const minutes = minutesByUnit(deriveState(p, log))!;
    expect(p.units.map((u) => [u.id, minutes.get(u.id)])).toEqual(
      expect.arrayContaining([
        [unitId('Water', 0), 8],
        [unitId('Water', 1), 8],
        [unitId('A', 0), 17],
        [unitId('A', 1), 22],
      ]),
    );
  });
  it('are nothing, not nought, where none was logged', () => {
    expect(minutesByUnit(deriveState(p, []))).toBeNull();
  });
  it('count at what an hour is worth, contender by contender and unit by unit', () => {
    const state = deriveState(p, log);
    const of = (name: string, over: object, s = state) =>
      fullCost(
        s,
        p.treatments.find((t) => t.name === name)!,
        { minor: 10, currency: 'EUR' },
        { ...noCosts, hourMinor: 1200, ...over },
        30,
      );
    // 20 a minute: A 17 and 22 min, Water 8 and 8.
    expect(of('A', { workAsLogged: true })).toMatchObject({ each: [350, 450], differs: ['work'] });
    expect(of('A', { workAsLogged: true }).perUnit.minor).toBeCloseTo(400, 9);
    expect(of('Water', { workAsLogged: true })).toMatchObject({ each: [170, 170], differs: [] });
    // What was typed stands aside while the log counts, and comes back without it.
    expect(of('A', { workAsLogged: true, minutesPerUnit: 60 }).perUnit.minor).toBeCloseTo(400, 9);
    expect(of('A', { minutesPerUnit: 60 }).each).toEqual([1210, 1210]);
    expect(of('A', { workAsLogged: true }, deriveState(p, [])).unknown).toEqual(['work']);
    expect(of('A', {}).lines.map((l) => l.name)).toEqual(['products']);
  });
});
