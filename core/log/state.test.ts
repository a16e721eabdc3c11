import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AreaId, RoundId, TraitId } from '../model/ids';
import { entry, harvest, height, heightTrait, plan, trait, unitId } from '../testing/trial';
import { implausible } from './plausible';
import { anyLog, shuffled } from '../testing/logs';
import { deriveState, extend, observationsOf, ofKind } from './state';

const water = unitId('Water', 0);

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

it('tasks, the opening of the codes, dead samples and remarks on a trait are read from the log', () => {
  const p = plan({ traits: [heightTrait()] });
  const unit = unitId('A', 0);
  const state = deriveState(p, [
    entry({ kind: 'taskDone', task: 'labels printed' }),
    entry({ kind: 'reveal', reason: '' }),
    entry({ kind: 'note', unitId: unit, text: 'leans', traitId: 'height', roundId: p.rounds[0]!.id }),
    entry({ kind: 'death', unitId: unit, sample: 2, cause: 'rot' }),
    entry({ ...height(unit, 9), notYet: true }),
  ]);
  expect([...state.tasksDone.keys()]).toEqual(['labels printed']);
  expect(state.revealed).not.toBeNull();
  expect(state.notes[0]).toMatchObject({ text: 'leans', traitId: 'height' });
  expect(state.deadSamples.get(unit)).toEqual(new Set([2]));
  expect(state.deaths.size).toBe(0);
  expect(state.observations[0]!.notYet).toBe(true);
});

describe('the state as a fold', () => {
  it('extended by lines, in any portions and any order, is the state derived from all of them', () => {
    const portions = anyLog
      .chain(shuffled)
      .chain((log) => fc.tuple(fc.constant(log), fc.array(fc.nat(log.length), { maxLength: 4 })));
    fc.assert(
      fc.property(portions, ([log, cuts]) => {
        const at = [0, ...[...cuts].sort((a, b) => a - b), log.length];
        const parts = at.slice(1).map((end, i) => log.slice(at[i], end));
        const folded = parts.reduce((state, part) => extend(state, part), deriveState(plan(), []));
        expect(folded).toEqual(deriveState(plan(), log));
      }),
    );
  });
  it('a line that is there already changes nothing, whatever it says now', () => {
    const first = entry(height(water, 50), 'a');
    const state = deriveState(plan(), [first]);
    expect(extend(state, [{ ...first, value: 10.5 } as typeof first])).toBe(state);
  });
  it('an older state can be extended too: it doesn’t know what came after it', () => {
    const start = deriveState(plan(), [entry(height(water, 1), 'a')]);
    extend(start, [entry(height(water, 2, 'r2'), 'b')]);
    const other = entry(height(unitId('A', 0), 3), 'c');
    expect(extend(start, [other]).log.map((e) => e.id)).toEqual(['a', 'c']);
  });
  it('views whose lines didn’t change stay the same objects', () => {
    const before = deriveState(plan(), [entry({ kind: 'deviation', unitIds: [], text: 'late' })]);
    const after = extend(before, [entry(height(water, 1))]);
    expect(after.deviations).toBe(before.deviations);
    expect(after.observations).not.toBe(before.observations);
  });
  it('an index has what a search through everything would find', () => {
    fc.assert(
      fc.property(anyLog, (log) => {
        const state = deriveState(plan(), log);
        for (const kind of ['measurement', 'weighing', 'death', 'note', 'move'] as const) {
          expect(ofKind(state, kind)).toEqual(state.entries.filter((e) => e.body.kind === kind));
        }
        for (const o of state.observations) {
          const own = state.observations.filter((x) => x.unitId === o.unitId && x.traitId === o.traitId);
          expect(observationsOf(state, o.unitId, o.traitId)).toEqual(own);
          if (o.roundId === null) continue;
          expect(observationsOf(state, o.unitId, o.traitId, o.roundId)).toEqual(
            own.filter((x) => x.roundId === o.roundId),
          );
        }
      }),
    );
  });
});
