import { describe, expect, it } from 'vitest';
import type { TraitId } from '../model/ids';
import { entry, plan, trait, unitId } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { constantWeight, dryingOf } from './drying';
import type { Entry } from './entry';
import { responseOf } from './response';
import { deriveState } from './state';

const dry = trait({ id: 'dry' as TraitId, name: 'Dry weight', kind: 'dryWeight', unit: 'g' });
const water = trait({ id: 'water' as TraitId, name: 'Water', kind: 'waterShare', unit: '%' });
const p = { ...plan({ replicates: 2 }), traits: [dry, water], primaryTraitId: dry.id };
const weigh = (unit: ReturnType<typeof unitId>, stage: 'fresh' | 'dry', net: number, together = 1): Entry =>
  entry({
    ...{ kind: 'drying', unitId: unit, traitId: dry.id, stage, grossG: net + 10, tareG: 10 },
    ...{ container: 'bag', together, instrument: 'typed' },
  });
const a = unitId('A', 0);
const of = (...log: Entry[]) => dryingOf(deriveState(p, log), a, dry);

describe('constant weight', () => {
  // A made curve: what is left above the dry matter halves every two hours. Dry 8 g of 100 g fresh.
  const curve = Array.from({ length: 16 }, (_, i) => 8 + 92 * 0.5 ** i);
  it('a made drying curve stops when the change is under the share, and never before', () => {
    for (const percent of [5, 1, 0.1]) {
      const stop = curve.findIndex((_, i) => constantWeight(curve.slice(0, i + 1), percent) !== null);
      const change = (i: number) => (100 * (curve[i - 1]! - curve[i]!)) / curve[i - 1]!;
      expect(change(stop)).toBeLessThan(percent);
      expect(change(stop - 1)).toBeGreaterThanOrEqual(percent);
      // The last step halves what is still to go: no more than the share is left.
      expect((100 * (curve[stop]! - 8)) / 8).toBeLessThan(1.1 * percent);
    }
  });
  it('one weighing is not constant, nor one that rises by as much', () => {
    expect(constantWeight([8], 1)).toBeNull();
    expect(constantWeight([8, 9], 1)).toBeNull();
    expect(constantWeight([8, 8], 1)).toBe(8);
    expect(constantWeight([0, 0], 1)).toBeNull();
  });
});

it('a unit has its dry weight and its water once it is constant, in the findings too', () => {
  const fresh = weigh(a, 'fresh', 100, 2);
  expect(of(fresh)).toMatchObject({ freshG: 100, dryG: null, waterPercent: null, together: 2 });
  expect(of(fresh, weigh(a, 'dry', 12, 2))).toMatchObject({ dryG: null });
  const done = of(fresh, weigh(a, 'dry', 8.05, 2), weigh(a, 'dry', 8, 2))!;
  expect(done).toMatchObject({ dryG: 8, waterPercent: 92, together: 2 });
  expect(done.steps[1]!.changePercent).toBeCloseTo(-0.621, 3);
  const log = (
    [
      ['Water', 0],
      ['Water', 1],
      ['A', 0],
      ['A', 1],
    ] as const
  ).flatMap(([t, i], n) => [
    weigh(unitId(t, i), 'fresh', 100),
    weigh(unitId(t, i), 'dry', 8 + n),
    ...(n < 3 ? [weigh(unitId(t, i), 'dry', 8 + n)] : []),
  ]);
  const state = deriveState(p, log);
  const made = findingOf(state, dry);
  if (!made.ok) throw new Error(made.error.tag);
  // The last is still drying: it isn't in the figures.
  expect(made.value.units.map((u) => [u.unitId, u.value])).toEqual([
    ['Water-0', 8],
    ['A-0', 10],
    ['Water-1', 9],
  ]);
  expect(made.value.leftOut.map((u) => u.why)).toEqual(['notMeasured']);
  expect(responseOf(state, unitId('Water', 1), water).visits[0]!.samples[0]!.observed).toEqual({
    type: 'continuous',
    value: 91,
  });
});

it('another share of the plan is gone by', () => {
  const loose = { ...dry, constantPercent: 5 };
  const state = deriveState({ ...p, traits: [loose] }, [weigh(a, 'dry', 8.3), weigh(a, 'dry', 8)]);
  expect(dryingOf(state, a, loose)!.dryG).toBe(8);
  expect(dryingOf(state, a, dry)!.dryG).toBeNull();
});
