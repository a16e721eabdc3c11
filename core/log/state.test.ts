import { describe, expect, it } from 'vitest';
import type { AreaId, RoundId, TraitId } from '../model/ids';
import { entry, harvest, height, heightTrait, plan, trait, unitId, weighing } from '../testing/trial';
import { implausible } from './plausible';
import { deriveState } from './state';
import { cropOfSample, samplesIn, traitScore, unitValue } from './unitValues';

const water = unitId('Water', 0);

describe('the value of a unit', () => {
  it('is gross minus tare, without floating-point dust', () => {
    const log = [entry(weighing(water, 0, { grossG: 171.6, tareG: 112.4 }))];
    expect(unitValue(deriveState(plan(), log), water, trait())).toBe(59.2);
  });
  it('adds up picks of several rounds and averages samples within one', () => {
    const picks = [entry(weighing(water, 20, { roundId: 'r1' })), entry(weighing(water, 5))];
    expect(unitValue(deriveState(plan(), picks), water, trait())).toBe(25);
    const samples = [4, 6, 8].map((v, i) => entry(height(water, v, 'r1', i + 1)));
    const state = deriveState(plan(), samples);
    expect(unitValue(state, water, heightTrait({ samplesPerUnit: 3 }))).toBe(6);
  });
  it('is the last round’s, unless a round is asked for', () => {
    const state = deriveState(plan(), [entry(height(water, 4)), entry(height(water, 9, 'r2'))]);
    expect(unitValue(state, water, heightTrait())).toBe(9);
    expect(unitValue(state, water, heightTrait(), 'r1' as RoundId)).toBe(4);
    expect(unitValue(state, unitId('A', 0), heightTrait())).toBeNull();
  });
});

it('a wanted band scores the distance outside it', () => {
  const band = heightTrait({ direction: 'band', bandLow: 6, bandHigh: 9 });
  expect([5, 6, 7.5, 9, 11].map((v) => traitScore(band, v))).toEqual([1, 0, 0, 0, 2]);
  expect(traitScore(trait(), 5)).toBe(5);
});

it('moves, deaths, exclusions, tares and the seal come from the log', () => {
  const to = { areaId: 'shelf' as AreaId, row: 2, column: 1 };
  const state = deriveState(plan(), [
    entry({ kind: 'move', moves: [{ unitId: water, to }], reason: '' }),
    entry({ kind: 'death', unitId: unitId('A', 1), sample: null, cause: 'mould' }),
    entry({ kind: 'death', unitId: unitId('A', 2), sample: 3, cause: 'one plug' }),
    entry({ kind: 'exclusion', unitId: water, traitId: null, reason: 'spilt' }),
    entry({
      kind: 'reading',
      quantity: 'tare',
      value: 11,
      subject: 'Bowl',
      unitId: null,
      treatmentId: null,
      instrument: '',
    }),
    entry({
      kind: 'reading',
      quantity: 'tare',
      value: 12,
      subject: 'Bowl',
      unitId: null,
      treatmentId: null,
      instrument: '',
    }),
    entry({ kind: 'seal', planSha256: 'a'.repeat(64) }),
    ...harvest({ Nobody: [5] }),
  ]);
  expect(state.positions.get(water)).toEqual(to);
  expect([...state.deaths.keys()]).toEqual([unitId('A', 1)]);
  expect(state.exclusions).toMatchObject([{ unitId: water, reason: 'spilt' }]);
  expect(state.tares.get('Bowl')).toBe(12);
  expect(state.seal?.planSha256).toBe('a'.repeat(64));
  expect(state.observations).toEqual([]);
});

describe('implausible values', () => {
  const state = deriveState(plan(), [entry(height(water, 4))]);
  const check = (value: number, over = {}) =>
    implausible(state, water, heightTrait(over), value, 'r2' as RoundId);
  it.each([
    [3.9, null],
    [8, null],
    [40, /10 times/],
    [1, /Much less/],
  ])('%d after 4', (value, said) => {
    if (said) expect(check(value)).toMatch(said);
    else expect(check(value)).toBeNull();
  });
  it('minds the trait’s own limits', () => {
    expect(check(5, { plausibleHigh: 4.5 })).toMatch(/Above 4.5 cm/);
    expect(check(3, { plausibleLow: 3.5 })).toMatch(/Below/);
  });
  it('has nothing to compare a first value with', () => {
    expect(implausible(state, unitId('A', 0), heightTrait(), 900, 'r1' as RoundId)).toBeNull();
    expect(implausible(state, water, trait({ id: 'weight' as TraitId }), 900, null)).toBeNull();
  });
});

describe('kinds of value', () => {
  const rooted = heightTrait({ id: 'rooted' as never, kind: 'ratio', outOf: 5, unit: '%' });
  const p = plan({ traits: [rooted] });
  const unit = unitId('A', 0);
  const said = (value: number, over: object = {}) =>
    entry({
      kind: 'measurement',
      unitId: unit,
      traitId: rooted.id,
      roundId: p.rounds[0]!.id,
      sample: null,
      value,
      ...over,
    });
  it('k of n counts as per cent, by its own n where one was said', () => {
    expect(unitValue(deriveState(p, [said(4)]), unit, rooted)).toBe(80);
    expect(unitValue(deriveState(p, [said(3, { outOf: 4 })]), unit, rooted)).toBe(75);
  });
  it('samples belong to crops in turn, and one crop can be looked at alone', () => {
    const tall = heightTrait({ samplesPerUnit: 2 });
    const two = { ...plan({ traits: [tall] }), cropsWithin: ['sage', 'basil'] };
    expect(samplesIn(two, tall)).toBe(4);
    expect([1, 2, 3, 4].map((s) => cropOfSample(tall, s))).toEqual([0, 0, 1, 1]);
    const log = [2, 4, 10, 20].map((v, i) => entry(height(unit, v, 'r2', i + 1)));
    const state = deriveState(two, log);
    expect(unitValue(state, unit, tall)).toBe(9);
    expect(unitValue(state, unit, tall, undefined, 0)).toBe(3);
    expect(unitValue(state, unit, tall, undefined, 1)).toBe(15);
  });
  it('crops of a unit are weighed each on its own, and weigh together', () => {
    const two = { ...plan(), cropsWithin: ['sage', 'basil'] };
    const log = [20, 30].map((net, i) => entry(weighing(unit, net, { sample: i + 1 })));
    const state = deriveState(two, log);
    expect(unitValue(state, unit, trait())).toBe(50);
    expect(unitValue(state, unit, trait(), undefined, 1)).toBe(30);
    expect(samplesIn(two, trait({ samplesPerUnit: 4 }))).toBe(2);
  });
  it('tasks, the opening of the codes and remarks on a trait are read from the log', () => {
    const state = deriveState(p, [
      entry({ kind: 'taskDone', task: 'labels printed' }),
      entry({ kind: 'reveal', reason: '' }),
      entry({ kind: 'note', unitId: unit, text: 'leans', traitId: rooted.id, roundId: p.rounds[0]!.id }),
      said(9, { notYet: true }),
    ]);
    expect([...state.tasksDone.keys()]).toEqual(['labels printed']);
    expect(state.revealedAt).not.toBeNull();
    expect(state.notes[0]).toMatchObject({ text: 'leans', traitId: 'rooted' });
    expect(state.observations[0]!.notYet).toBe(true);
  });
});
