import { describe, expect, it } from 'vitest';
import { rowsOf } from '../analysis/rows';
import { entry, plan, unitId, trait as makeTrait, weighing } from '../testing/trial';
import { plantsIn, standsAt, thinTo } from './stand';
import { deriveState } from './state';

const a = unitId('A', 0);
const b = unitId('A', 1);
const count = (unit: typeof a, stage: 'sown' | 'up' | 'thinned', n: number) =>
  entry({ kind: 'stand', unitId: unit, stage, count: n });

describe('plants counted', () => {
  it('after thinning before came up before sown; the newest of each', () => {
    const state = deriveState(plan(), [
      count(a, 'thinned', 9),
      count(a, 'sown', 14),
      count(a, 'up', 12),
      count(a, 'up', 11),
      count(b, 'up', 8),
    ]);
    expect(plantsIn(state, a)).toBe(9);
    expect(plantsIn(state, b)).toBe(8);
    expect(plantsIn(state, unitId('Water', 0))).toBeNull();
    expect([...standsAt(state, 'up')]).toEqual([
      [a, 11],
      [b, 8],
    ]);
  });
  it('thinning pulls what is too many and says what is short', () => {
    expect(
      thinTo(
        new Map([
          [a, 11],
          [b, 8],
        ]),
        9,
      ),
    ).toEqual([
      { unitId: a, up: 11, pull: 2, short: 0 },
      { unitId: b, up: 8, pull: 0, short: 1 },
    ]);
  });
  it('a result per plant is divided by the plants counted, not by those planned', () => {
    const p = plan({ replicates: 2 });
    const trait = makeTrait({ per: 'plant' });
    const planned = {
      ...p,
      traits: [trait],
      treatments: p.treatments.map((t) => ({ ...t, conditions: { ...t.conditions, plantsPerUnit: 10 } })),
    };
    const log = p.units.map((u) => entry(weighing(u.id, 80)));
    const divisors = (more: Parameters<typeof deriveState>[1]) =>
      rowsOf(deriveState(planned, [...log, ...more]), trait).rows.map((r) => [r.unit, r.divisor]);
    expect(new Set(divisors([]).map(([, d]) => d))).toEqual(new Set([10]));
    expect(Object.fromEntries(divisors([count(a, 'up', 8)]))).toMatchObject({ [a]: 8, [b]: 10 });
  });
});
