import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rowsOf } from '../analysis/rows';
import { figureOfRow } from '../analysis/number';
import type { Grade } from '../model/grade';
import type { UnitId } from '../model/ids';
import type { TraitKind } from '../model/trait';
import { entry, plan, trait } from '../testing/trial';
import { dayPicks, pickDays, pickTotals, pickVisits } from './picks';
import { deriveState } from './state';

const grades: Grade[] = [
  { name: 'sound', use: 'yield' },
  { name: 'split', use: 'no' },
  { name: 'eaten', use: 'loss' },
];
const p = { ...plan({ replicates: 2 }), grades };
const units = p.units.map((u) => u.id);
type Item = { grade: string; count: number; weightG: number | null };
const pick = (unit: UnitId, day: number, items: Item[]) => ({
  ...entry({ kind: 'pick', unitId: unit, items, note: '', instrument: 'typed' }),
  at: new Date(Date.parse(`${p.startDate}T10:00:00Z`) + day * 86_400_000).toISOString(),
  offsetMin: 0,
});
const sound = (count: number, weightG: number | null): Item => ({ grade: 'sound', count, weightG });
const of = (kind: TraitKind) => trait({ kind, unit: 'g', summary: 'last' });
const rows = (kind: TraitKind, log: Parameters<typeof deriveState>[1], options = {}) =>
  rowsOf(deriveState(p, log), of(kind), options);
const figures = (kind: TraitKind, log: Parameters<typeof deriveState>[1], options = {}) =>
  Object.fromEntries(rows(kind, log, options).rows.map((r) => [r.unit, figureOfRow(r, of(kind))]));

describe('picks over weeks', () => {
  const [a, b, c, d] = units as [UnitId, UnitId, UnitId, UnitId];
  const log = [
    pick(a, 40, [sound(2, 150), { grade: 'split', count: 1, weightG: 60 }]),
    pick(a, 40, [sound(1, 80)]),
    pick(b, 40, []),
    pick(c, 40, [sound(1, 90)]),
    pick(d, 40, [{ grade: 'eaten', count: 2, weightG: 110 }]),
    pick(a, 47, [sound(1, 70)]),
    pick(b, 47, [sound(3, 240)]),
    pick(c, 47, []),
    pick(d, 47, [sound(1, 60)]),
  ];
  it('entries of a day are put together; nothing ripe is an entry, not a gap', () => {
    const state = deriveState(p, log);
    expect(
      dayPicks(state)
        .get(a)!
        .map((x) => [x.day, x.items.length]),
    ).toEqual([
      [40, 3],
      [47, 1],
    ]);
    expect(pickDays(state).map((x) => [x.day, x.done.length, x.missing.length])).toEqual([
      [40, 4, 0],
      [47, 4, 0],
    ]);
  });
  it('as if the trial had ended after the first pick, only that one counts', () => {
    const all = figures('pickWeight', log);
    const first = figures('pickWeight', log, { until: 46 });
    expect([all[a], first[a]]).toEqual([300, 230]);
    expect([all[b], first[b]]).toEqual([240, 0]);
  });
  it('weight, number, share, mean and first day by hand', () => {
    expect(figures('pickWeight', log)).toEqual({ [a]: 300, [b]: 240, [c]: 90, [d]: 60 });
    expect(figures('pickCount', log)).toEqual({ [a]: 4, [b]: 3, [c]: 1, [d]: 1 });
    // a: 4 of 5 picked; d: 1 of 3
    expect(figures('pickSound', log)[a]).toBe(80);
    expect(figures('pickSound', log)[d]).toBeCloseTo(100 / 3, 10);
    expect(figures('pickMean', log)).toEqual({ [a]: 75, [b]: 80, [c]: 90, [d]: 60 });
    expect(figures('pickFirst', log)).toEqual({ [a]: 40, [b]: 47, [c]: 40, [d]: 47 });
  });
  it('what was lost to pests counts either way', () => {
    expect(figures('pickWeight', log, { withLosses: true })[d]).toBe(170);
    expect(figures('pickFirst', log, { withLosses: true })[d]).toBe(40);
  });
  it('a day on which one wasn’t looked at doesn’t count, and is named with who is missing', () => {
    const late = [...log, pick(a, 54, [sound(5, 500)]), pick(b, 54, []), pick(c, 54, [])];
    expect(figures('pickWeight', late)).toEqual(figures('pickWeight', log));
    const code = p.units[3]!.code;
    expect(rows('pickWeight', late).basis.open).toEqual([
      { name: 'The pick', day: 54, done: 3, wanted: 4, missing: [code] },
    ]);
    const whole = [...late, pick(d, 54, [])];
    expect(figures('pickWeight', whole)[a]).toBe(800);
    expect(rows('pickWeight', whole).basis.open).toEqual([]);
  });
  it('the dead are asked for nothing after their death; what they gave counts', () => {
    const death = {
      ...entry({ kind: 'death', unitId: d, sample: null, cause: 'wilt' }),
      at: new Date(Date.parse(`${p.startDate}T10:00:00Z`) + 50 * 86_400_000).toISOString(),
      offsetMin: 0,
    };
    const after = [...log, death, pick(a, 54, []), pick(b, 54, [sound(1, 10)]), pick(c, 54, [])];
    expect(figures('pickWeight', after)).toEqual({ [a]: 300, [b]: 250, [c]: 90, [d]: 60 });
  });
  it('fruit that was counted but not weighed has no weight, and the number stands', () => {
    const counted = log.map((e) => e).concat(pick(a, 47, [sound(1, null)]));
    expect(figures('pickWeight', counted)[a]).toBeUndefined();
    expect(figures('pickCount', counted)[a]).toBe(5);
  });
  it('“not yet” is the day of the last look, and isn’t taken for a first pick', () => {
    const [visit] = pickVisits(deriveState(p, [pick(a, 40, []), pick(a, 47, [])]), a, of('pickFirst'));
    expect(visit!.samples[0]!.observed).toEqual({ type: 'event', happened: false, day: 47 });
  });
  it('totals add up however a day is cut into entries', () => {
    const item = fc.record({
      grade: fc.constantFrom('sound', 'split', 'eaten', 'unknown'),
      count: fc.nat(9),
      weightG: fc.nat(900),
    });
    fc.assert(
      fc.property(fc.array(fc.array(item, { maxLength: 5 }), { minLength: 1, maxLength: 5 }), (parts) => {
        const one = [{ unitId: a, day: 3, items: parts.flat() }];
        const many = parts.map((items) => ({ unitId: a, day: 3, items }));
        const [x, y] = [pickTotals(one, grades)!, pickTotals(many, grades)!];
        expect({ ...x, looked: 0 }).toEqual({ ...y, looked: 0 });
        expect(x.count).toBeLessThanOrEqual(x.all);
      }),
    );
  });
});
