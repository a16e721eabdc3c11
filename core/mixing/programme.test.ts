import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entry, plan, use } from '../testing/trial';
import { batchVolume, dueMixes } from './dueMixes';
import { lateMix, mixesDue, servedOn } from './mixesInLog';
import { isDueOn, nextProgrammeDay, programmeDays, daysOfUse, sayUndated, usesAt } from './programme';

const weekly = use({ amount: 5, solutionLPerUnit: 0.5, everyDays: 7, fromDay: 3, timesPerUnit: 3 });
const late = use({
  amount: 10,
  solutionLPerUnit: 0.5,
  everyDays: 7,
  fromDay: 24,
  timesPerUnit: 2,
  stage: 'bloom',
});

describe('days of a use', () => {
  it('from a day, so many times', () => {
    expect(daysOfUse(weekly)).toEqual([3, 10, 17]);
    expect(daysOfUse(use({ everyDays: 7, timesPerUnit: 2 }))).toEqual([0, 7]);
    expect(daysOfUse(use({ fromDay: 4 }))).toEqual([4]);
    expect(daysOfUse(use())).toEqual([]);
  });
  it('those that have none are said', () => {
    expect(sayUndated(weekly)).toBeNull();
    expect(sayUndated(use({ fromDay: 4, timesPerUnit: 1 }))).toBeNull();
    expect(sayUndated(use({ everyDays: 7, timesPerUnit: 2 }))).toBeNull();
    expect(sayUndated(use({ timesPerUnit: 5 }))).toMatch(/^On no fixed days, so not in Today/);
    expect(sayUndated(use({ fromDay: 4, timesPerUnit: 2 }))).toMatch(/^Only day 4 .* the other one is\.$/);
    expect(sayUndated(use({ fromDay: 4, timesPerUnit: 8 }))).toMatch(/the other 7 are\.$/);
  });
  it('due on those days and no others', () => {
    for (const u of [weekly, late, use({ fromDay: 4 }), use()]) {
      const due = Array.from({ length: 60 }, (_, d) => d).filter((d) => isDueOn(u, d));
      expect(due).toEqual(daysOfUse(u));
    }
  });
});

const withUses = (uses = [weekly, late], over: object = {}) => {
  const p = plan();
  return {
    ...p,
    treatments: p.treatments.map((t) => (t.name === 'A' ? { ...t, products: uses, ...over } : t)),
  };
};

describe('what is due on a day', () => {
  it('the feed, and the same water for the control', () => {
    const p = withUses();
    const due = dueMixes(p, 10, p.units);
    expect(due.map((d) => [d.treatmentId, d.kind, d.perUnitL, d.unitIds.length])).toEqual([
      ['Water', 'water', 0.5, 3],
      ['A', 'solution', 0.5, 3],
    ]);
    expect(dueMixes(p, 11, p.units)).toEqual([]);
  });
  it('products switch at a stage', () => {
    const p = withUses();
    expect(dueMixes(p, 24, p.units).find((d) => d.kind === 'solution')!.uses).toEqual([late]);
  });
  it('a flush takes the place of feed', () => {
    const p = withUses([weekly], { flushDays: [10] });
    expect(dueMixes(p, 10, p.units).map((d) => [d.treatmentId, d.kind])).toEqual([
      ['Water', 'water'],
      ['A', 'flush'],
    ]);
    expect(programmeDays(p)).toEqual([3, 10, 17]);
  });
  it('what goes in as it is stands apart from what is dissolved', () => {
    const tablet = use({ amount: 2, unit: 'piece', fromDay: 3 });
    const p = withUses([weekly, tablet]);
    expect(dueMixes(p, 3, p.units).map((d) => d.kind)).toEqual(['water', 'solution', 'direct']);
    // a tablet alone gives the control no reason for water
    expect(dueMixes(withUses([tablet]), 3, p.units).map((d) => d.kind)).toEqual(['direct']);
  });
  it('uses without days come when asked for; dead units get nothing', () => {
    const p = withUses([use({ solutionLPerUnit: 1 })]);
    expect(dueMixes(p, 3, p.units)).toEqual([]);
    expect(dueMixes(p, 3, p.units, true)).toHaveLength(2);
    expect(
      dueMixes(
        p,
        3,
        p.units.filter((u) => u.treatmentId !== 'A'),
        true,
      ),
    ).toEqual([]);
  });
});

it('whatever the programme: each dose on its days and no others, one vessel a volume, water where feed is', () => {
  const anyUse = fc
    .record({
      fromDay: fc.option(fc.integer({ min: 0, max: 12 }), { nil: null }),
      everyDays: fc.option(fc.integer({ min: 1, max: 6 }), { nil: null }),
      timesPerUnit: fc.integer({ min: 1, max: 5 }),
      solutionLPerUnit: fc.constantFrom(null, 0.5, 1),
    })
    .map((over) => use(over));
  const flushes = fc.uniqueArray(fc.integer({ min: 0, max: 40 }), { maxLength: 3 });
  fc.assert(
    fc.property(fc.array(anyUse, { minLength: 1, maxLength: 4 }), flushes, (uses, flushDays) => {
      const p = withUses(uses, { flushDays });
      const mine = p.units.filter((u) => u.treatmentId === 'A').map((u) => u.id);
      for (let day = 0; day <= 40; day++) {
        const due = dueMixes(p, day, p.units);
        const own = due.filter((d) => d.treatmentId === 'A');
        const wanted = flushDays.includes(day) ? [] : uses.filter((u) => daysOfUse(u).includes(day));
        expect(own.flatMap((d) => d.uses)).toHaveLength(wanted.length);
        for (const u of wanted) expect(own.some((d) => d.uses.includes(u))).toBe(true);
        for (const d of own) {
          expect(d.unitIds).toEqual(mine);
          if (d.kind !== 'flush')
            expect(new Set(d.uses.map((u) => u.solutionLPerUnit))).toEqual(new Set([d.perUnitL]));
        }
        expect(new Set(own.map((d) => d.perUnitL)).size).toBe(own.length);
        const watered = due.some((d) => d.treatmentId === 'Water');
        expect(watered).toBe(own.some((d) => d.kind !== 'direct'));
      }
    }),
  );
});

it('what a treatment stands on at a day between feeds, before and after them', () => {
  const at = (day: number, products = [weekly, late]) => usesAt({ products }, day);
  expect(at(10)).toEqual([weekly]);
  expect(at(12)).toEqual([weekly]);
  expect(at(20)).toEqual([weekly]);
  expect(at(26)).toEqual([late]);
  expect(at(90)).toEqual([late]);
  expect(at(0)).toEqual([weekly]);
  const loose = use({ solutionLPerUnit: 1 });
  expect(at(0, [loose])).toEqual([loose]);
  expect(at(0, [use()])).toEqual([]);
});

it('the next day, the batch’s volume, and what is mixed already', () => {
  const p = withUses();
  expect([nextProgrammeDay(p, 4), nextProgrammeDay(p, 17), nextProgrammeDay(p, 32)]).toEqual([10, 17, null]);
  expect(batchVolume(dueMixes(p, 10, p.units)[1]!, 10)).toBe(1.65);
  expect(batchVolume({ perUnitL: null, unitIds: [], tanks: null }, 10)).toBeNull();
  const log = [entry({ kind: 'mix', treatmentId: 'A', batch: 'b', volumeL: 2, amounts: [], day: 10 })];
  expect([...servedOn(deriveState(p, log), 10)]).toEqual(['A']);
  expect(servedOn(deriveState(p, log), 17).size).toBe(0);
});

it('two vessels of one treatment on one day are counted apart', () => {
  const tablet = use({ productId: 'tablet' as never, amount: 2, unit: 'piece', fromDay: 3 });
  const p = withUses([weekly, tablet]);
  const mixed = (treatmentId: string, ...products: string[]) =>
    entry({
      kind: 'mix',
      treatmentId,
      batch: products.join(),
      volumeL: 1,
      day: 3,
      amounts: products.map((productId) => ({ productId, amount: 1, unit: 'g' })),
    });
  const due = (...log: ReturnType<typeof mixed>[]) => mixesDue(deriveState(p, log), 3);
  expect(due()).toEqual({ wanted: 3, done: 0 });
  expect(due(mixed('A', 'feed'))).toEqual({ wanted: 3, done: 1 });
  expect(due(mixed('A', 'feed'), mixed('A', 'tablet'), mixed('Water'))).toEqual({ wanted: 3, done: 3 });
  expect(due(mixed('A', 'something else'))).toEqual({ wanted: 3, done: 0 });
});

it('feed of the last programme day that isn’t in the log is late; older days and plain water are not', () => {
  const p = withUses([weekly]);
  const mixed = (treatmentId: string, day: number) =>
    entry({
      kind: 'mix',
      treatmentId,
      batch: `${treatmentId} ${day}`,
      volumeL: 1,
      day,
      amounts: treatmentId === 'Water' ? [] : [{ productId: 'feed', amount: 1, unit: 'mL' }],
    });
  const late = (day: number, ...log: ReturnType<typeof mixed>[]) => lateMix(deriveState(p, log), day);
  expect([late(3), late(2)]).toEqual([null, null]);
  expect(late(4)).toEqual({ day: 3, missing: 1 });
  // a week on, only the newer day is asked after, and not the control’s water
  expect(late(11, mixed('A', 3))).toEqual({ day: 10, missing: 1 });
  expect(late(11, mixed('A', 10))).toBeNull();
});
