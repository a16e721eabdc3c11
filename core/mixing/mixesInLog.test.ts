import { describe, expect, it } from 'vitest';
import { type TrialState, deriveState } from '../log/state';
import type { ProductId, TreatmentId } from '../model/ids';
import type { Plan } from '../model/plan';
import { entry, plan, product, unitId, use } from '../testing/trial';
import { type DueMix, dueMixes } from './dueMixes';
import { lateMix, leftoverFor, mixesDue, servedOn } from './mixesInLog';

/** 10 mL/L, 1 L to each of three trays, on days 3 and 10. */
const p: Plan = {
  ...plan({ replicates: 3 }),
  products: [product()],
  treatments: plan().treatments.map((t, i) =>
    i === 1
      ? {
          ...t,
          products: [use({ amount: 10, solutionLPerUnit: 1, timesPerUnit: 2, fromDay: 3, everyDays: 7 })],
        }
      : t,
  ),
};
const mix = (batch: string, amount: number, over: object = {}) =>
  entry({
    ...{ kind: 'mix', treatmentId: 'A' as TreatmentId, batch, volumeL: 8, day: 3 },
    amounts: [{ productId: 'feed' as ProductId, amount, unit: 'mL' as const, wanted: 80 }],
    ...over,
  });
const feed = (batch: string, day: number, volumeLPerUnit = 1) =>
  entry({ kind: 'feed', unitIds: [0, 1, 2].map((i) => unitId('A', i)), batch, volumeLPerUnit, day });
const dueOn = (state: TrialState, day: number, over: Partial<DueMix> = {}): DueMix => ({
  ...dueMixes(state.plan, day, state.plan.units).find((d) => d.treatmentId === 'A')!,
  ...over,
});
const left = (log: Parameters<typeof deriveState>[1], over: Partial<DueMix> = {}, of = p) => {
  const state = deriveState(of, log);
  const l = leftoverFor(state, dueOn(state, 10, over), 10);
  return l && `${l.batch} ${l.leftL}`;
};

describe('what is left of a bucket', () => {
  it('is offered at the next feeding of the same treatment, less what was fed of it', () => {
    expect(left([mix('A1', 80), feed('A1', 3)])).toBe('A1 5');
    expect(left([mix('A1', 80), feed('A1', 3), feed('A1', 5, 0.5)])).toBe('A1 3.5');
  });
  it('isn’t where nobody knows what is left, or nothing but dregs is', () => {
    expect(left([mix('A1', 80)])).toBeNull();
    expect(left([mix('A1', 80), feed('A1', 3, 2.65)])).toBeNull();
  });
  it('is the last batch’s alone: who mixed anew has thrown the older one away', () => {
    const [older, newer] = [mix('A1', 80), mix('A2', 80, { day: 5 })];
    expect(left([older, feed('A1', 3), newer])).toBeNull();
    expect(left([older, feed('A1', 3), newer, feed('A2', 5)])).toBe('A2 5');
    expect(left([mix('A1', 80, { day: 10 }), feed('A1', 10)])).toBeNull();
  });
  it('isn’t another treatment’s, another strength’s, another product’s, nor one in the units’ own tanks', () => {
    const fed = feed('A1', 3);
    expect(left([mix('A1', 80, { treatmentId: 'B' }), fed])).toBeNull();
    expect(left([mix('A1', 80, { volumeL: 16 }), fed])).toBeNull();
    const more = [
      { productId: 'feed' as ProductId, amount: 80, unit: 'mL', wanted: 80 },
      { productId: 'other' as ProductId, amount: 8, unit: 'mL' },
    ];
    expect(left([mix('A1', 80, { amounts: more }), fed])).toBeNull();
    expect(left([mix('A1', 80), fed], { tanks: 3 })).toBeNull();
    expect(left([mix('A1', 80), fed], { kind: 'flush', uses: [] })).toBeNull();
  });
  it('of a stock solution is judged by what was dissolved in it', () => {
    const stock = (amount: number) =>
      entry({ ...{ kind: 'stock', productId: 'feed', batch: 'S1', amount, unit: 'mL', volumeL: 1 } });
    const amounts = [
      { productId: 'feed' as ProductId, amount: 800, unit: 'mL', wanted: 800, fromStock: 'S1' },
    ];
    expect(left([stock(100), mix('A1', 0, { amounts }), feed('A1', 3)])).toBe('A1 5');
    expect(left([stock(200), mix('A1', 0, { amounts }), feed('A1', 3)])).toBeNull();
  });
  it('fed on a day of the programme serves that day: nothing is due, nothing is late', () => {
    const before = deriveState(p, [mix('A1', 80), feed('A1', 3)]);
    const after = deriveState(p, [mix('A1', 80), feed('A1', 3), feed('A1', 10)]);
    expect([mixesDue(before, 10).done, mixesDue(after, 10).done]).toEqual([0, 1]);
    expect([lateMix(before, 12)?.missing ?? 0, lateMix(after, 12)?.missing ?? 0]).toEqual([1, 0]);
    expect([...servedOn(after, 10)]).toEqual(['A']);
    expect(servedOn(after, 17).size).toBe(0);
  });
});

describe('the same product, watered and sprayed on one day', () => {
  const both: Plan = {
    ...p,
    treatments: p.treatments.map((t) => ({
      ...t,
      products: t.products.flatMap((u) => [u, { ...u, way: 'spray' as const, solutionLPerUnit: 0.1 }]),
    })),
  };
  const done = (...lines: Parameters<typeof deriveState>[1]) => mixesDue(deriveState(both, lines), 3);
  it('is two vessels, and a batch serves one', () => {
    const wanted = done().wanted;
    expect(done(mix('A1', 80, { way: null }))).toEqual({ wanted, done: 1 });
    expect(done(mix('A1', 80, { way: null }), mix('A2', 3, { way: 'spray' }))).toEqual({ wanted, done: 2 });
  });
  it('a line from before the way was kept serves as it did', () => {
    expect(done(mix('A1', 80)).done).toBe(2);
  });
});
