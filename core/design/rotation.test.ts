import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plan } from '../testing/trial';
import type { Plan } from '../model/plan';
import { positionKey } from '../model/positions';
import { exposureSpreadPercent, meanExposure, rotationPlan } from './rotation';

const rotated = (over: Partial<Plan>, shape = {}): Plan => ({
  ...plan({ replicates: 4, ...shape }),
  ...over,
});
const lit = (p: Plan, value: (row: number, column: number) => number): Plan => ({
  ...p,
  gradient: {
    name: 'Light',
    unit: '',
    readings: p.units.map((u) => ({ position: u.position, value: value(u.position.row, u.position.column) })),
  },
});

describe('a rotation', () => {
  const cases = fc.record({
    treatments: fc.integer({ min: 1, max: 4 }),
    replicates: fc.integer({ min: 1, max: 5 }),
    every: fc.integer({ min: 1, max: 4 }),
    within: fc.constantFrom('block' as const, 'area' as const, 'all' as const),
    light: fc.boolean(),
  });
  it('gives each unit equal time at each of its positions, as far as the numbers allow', () => {
    fc.assert(
      fc.property(cases, ({ treatments, replicates, every, within, light }) => {
        const names = ['Water', 'A', 'B', 'C'].slice(0, treatments);
        let p = rotated(
          { rotation: { everyDays: every, within } },
          { treatments: names, replicates, blocked: true },
        );
        if (light) p = lit(p, (r, c) => 100 + 10 * r + c * c);
        const turns = rotationPlan(p);
        expect(turns[0]!.positions).toEqual(new Map(turns[0]!.positions));
        const n = within === 'block' ? treatments : treatments * replicates;
        for (const turn of turns) {
          expect(new Set([...turn.positions.values()].map(positionKey)).size).toBe(p.units.length);
        }
        for (const u of p.units) {
          const visits = new Map<string, number>();
          for (const t of turns) {
            const key = positionKey(t.positions.get(u.id)!);
            visits.set(key, (visits.get(key) ?? 0) + 1);
          }
          const [least, most] = [Math.floor(turns.length / n), Math.ceil(turns.length / n)];
          for (const v of visits.values()) {
            expect(v).toBeGreaterThanOrEqual(least);
            expect(v).toBeLessThanOrEqual(most);
          }
          expect(visits.size).toBe(Math.min(n, turns.length));
        }
      }),
    );
  });
  it('starts where chance put the units and ends with the last round', () => {
    const p = rotated({ rotation: { everyDays: 3, within: 'all' } });
    const turns = rotationPlan(p);
    expect(turns.map((t) => t.day)).toEqual([0, 3, 6, 9]);
    for (const u of p.units) expect(turns[0]!.positions.get(u.id)).toEqual(u.position);
    expect(rotationPlan({ ...p, rotation: null })).toEqual([]);
  });
  it('takes a gradient off: after a whole round of turns all treatments had the same light', () => {
    const still = lit(rotated({}), (_, column) => (column === 0 ? 100 : 140));
    expect(exposureSpreadPercent(meanExposure(still))).toBeCloseTo(33.3, 1);
    const moved = { ...still, rotation: { everyDays: 1, within: 'block' as const } };
    expect(
      exposureSpreadPercent(
        meanExposure({
          ...moved,
          units: moved.units.map((u, i) => ({ ...u, block: Math.floor(i / 2) + 1 })),
        }),
      ),
    ).toBeCloseTo(0, 9);
  });
  it('says nothing about exposure without readings', () => {
    expect(exposureSpreadPercent(meanExposure(rotated({})))).toBeNull();
  });
});
