import { describe, expect, it } from 'vitest';
import { deriveState } from '~core/log/state';
import { entry, heightTrait, height, plan, unitId } from '~core/testing/trial';
import { hasOpenUnits, replacing, samplesAreAlike, stepFrom, stopsOfUnits, walkOf } from './stops';

const trait = heightTrait({ samplesPerUnit: 3 });
const p = plan({ treatments: ['Water', 'A'], replicates: 1, traits: [trait] });
const round = p.rounds[0]!;
const [first, last] = [
  walkOf(deriveState(p, []), trait)[0]!.id,
  walkOf(deriveState(p, []), trait).at(-1)!.id,
];

describe('the walk', () => {
  const state = deriveState(p, [entry({ kind: 'death', unitId: first, sample: 2, cause: '' })]);
  const walk = walkOf(state, trait);
  it('goes through the living samples of a unit, then to the next unit, either way', () => {
    expect(stepFrom(state, trait, walk, { unitId: first, sample: 1 }, 1)).toEqual({
      unitId: first,
      sample: 3,
    });
    expect(stepFrom(state, trait, walk, { unitId: first, sample: 3 }, 1)).toEqual({
      unitId: last,
      sample: 1,
    });
    expect(stepFrom(state, trait, walk, { unitId: last, sample: 1 }, -1)).toEqual({
      unitId: first,
      sample: 3,
    });
    expect(stepFrom(state, trait, walk, { unitId: first, sample: 3 }, -1)).toEqual({
      unitId: first,
      sample: 1,
    });
  });
  it('begins again after the last unit, and leaves a sample that died', () => {
    expect(stepFrom(state, trait, walk, { unitId: last, sample: 3 }, 1)).toEqual({
      unitId: first,
      sample: 1,
    });
    expect(stepFrom(state, trait, walk, { unitId: first, sample: 2 }, 1)).toEqual({
      unitId: first,
      sample: 3,
    });
    expect(stepFrom(state, trait, walk, { unitId: first, sample: 2 }, -1)).toEqual({
      unitId: first,
      sample: 1,
    });
  });
});

it('those that are done are passed by while others are open, either way', () => {
  const four = plan({ treatments: ['Water', 'A'], replicates: 2 }).units;
  const [a, b, c, d] = four.map((u) => u.id as string);
  const stepping = (done: readonly (string | undefined)[]) => {
    const stops = stopsOfUnits(four, (u) => !done.includes(u.id));
    return (from: string | undefined, by: 1 | -1) =>
      stops.step({ unitId: from as never, sample: null }, by).unitId;
  };
  expect(stepping([b])(a, 1)).toBe(c);
  expect(stepping([b])(c, -1)).toBe(a);
  expect(stepping([b, c, d])(a, 1)).toBe(b);
  expect(stepping([a, b, c, d])(d, 1)).toBe(a);
  expect(stepping([])(a, -1)).toBe(d);
});

it('a round is open for a trait until every living unit has it', () => {
  const whole = plan({
    treatments: ['Water', 'A'],
    replicates: 1,
    traits: [heightTrait({ samplesPerUnit: 1 })],
  });
  const [t, r] = [whole.traits[0]!, whole.rounds[0]!];
  const one = { ...height(unitId('Water', 0), 3), traitId: t.id, roundId: r.id };
  const two = { ...height(unitId('A', 0), 4), traitId: t.id, roundId: r.id };
  expect(hasOpenUnits(deriveState(whole, [entry(one)]), t, r)).toBe(true);
  expect(hasOpenUnits(deriveState(whole, [entry(one), entry(two)]), t, r)).toBe(false);
  const dead = entry({ kind: 'death', unitId: unitId('A', 0), sample: null, cause: '' });
  expect(hasOpenUnits(deriveState(whole, [entry(one), dead]), t, r)).toBe(false);
  expect(round.traitIds).toContain(trait.id);
});

it('says what a new value replaces', () => {
  expect(replacing({ value: 4.25 }, heightTrait({ unit: 'cm', decimals: 1 }))).toBe(
    'This replaces 4.3 cm, kept in this round.',
  );
});

it('a sample is one plant for all traits only where every trait counts them alike', () => {
  expect(samplesAreAlike(p)).toBe(true);
  expect(samplesAreAlike({ ...p, cropsWithin: ['cress', 'dill'] })).toBe(false);
  expect(samplesAreAlike({ cropsWithin: ['cress', 'dill'], traits: [heightTrait()] })).toBe(true);
});
