import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entry, plan, product, use } from '../testing/trial';
import { doseAmount } from '../model/plan';
import { givenPlan, restOf, stretchesOf } from './givenPlan';
import { mixesDue } from './mixesInLog';
import { dueMixes } from './dueMixes';
import { daysOfUse, isDueOn } from './programme';
import { treatmentCost } from '../cost/treatmentCost';

const planned = use({ amount: 2, solutionLPerUnit: 0.5, everyDays: 2, fromDay: 0, timesPerUnit: 10 });

describe('a dose changed on the way', () => {
  it('ends what went on and begins what it says', () => {
    const to = { ...restOf(planned, 9, 0)!, strengthPercent: 150 };
    const [was, is] = stretchesOf([planned], [{ use: 0, day: 9, to, given: 0 }]);
    expect(daysOfUse(was!.use)).toEqual([0, 2, 4, 6, 8]);
    expect(daysOfUse(is!.use)).toEqual([10, 12, 14, 16, 18]);
    expect(doseAmount(is!.use)).toBe(3);
    expect([was!.goesOn, is!.goesOn]).toEqual([false, true]);
  });
  it('stops', () => {
    expect(stretchesOf([planned], [{ use: 0, day: 0, to: null, given: 0 }])).toEqual([]);
    const [left] = stretchesOf([planned], [{ use: 0, day: 5, to: null, given: 0 }]);
    expect(daysOfUse(left!.use)).toEqual([0, 2, 4]);
  });
  it('counts the times of what has no fixed days', () => {
    const loose = use({ amount: 5, timesPerUnit: 6 });
    const to = { ...restOf(loose, 12, 4)!, strengthPercent: 50 };
    expect(stretchesOf([loose], [{ use: 0, day: 12, to, given: 4 }]).map((s) => s.use.timesPerUnit)).toEqual([
      4, 2,
    ]);
    expect(restOf(loose, 12, 6)).toBeNull();
  });
  it('on every day exactly one dose, the old one before and the new one after, and none is lost', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 0, max: 20 }),
        fc.array(fc.integer({ min: 0, max: 200 }), { maxLength: 4 }),
        (everyDays, timesPerUnit, fromDay, days) => {
          const one = use({ amount: 1, everyDays, timesPerUnit, fromDay, solutionLPerUnit: 1 });
          const changes: Parameters<typeof stretchesOf>[1][number][] = [];
          for (const day of [...days].sort((a, b) => a - b)) {
            const now = stretchesOf([one], changes).find((s) => s.goesOn);
            const rest = now && restOf(now.use, day, 0);
            if (rest) changes.push({ use: 0, day, given: 0, to: { ...rest, amount: day + 2 } });
          }
          const uses = stretchesOf([one], changes).map((s) => s.use);
          const wanted = daysOfUse(one);
          expect(uses.flatMap(daysOfUse).sort((a, b) => a - b)).toEqual(wanted);
          for (const d of wanted) {
            const due = uses.filter((u) => isDueOn(u, d));
            expect(due).toHaveLength(1);
            const last = changes.filter((c) => c.day <= d).at(-1);
            expect(due[0]!.amount).toBe(last ? last.day + 2 : 1);
          }
        },
      ),
    );
  });
});

describe('the plan as it is given', () => {
  const p = plan();
  const sealed = {
    ...p,
    products: [product()],
    treatments: p.treatments.map((t) => (t.name === 'A' ? { ...t, products: [planned] } : t)),
  };
  const a = sealed.treatments.find((t) => t.name === 'A')!;
  const line = entry(
    {
      kind: 'doseChange',
      treatmentId: a.id,
      use: 0,
      day: 10,
      given: 0,
      to: { ...restOf(planned, 10, 0)!, strengthPercent: 200 },
      reason: 'looked weak',
    },
    'change',
  );
  const state = deriveState(sealed, [line]);
  it('is what Mixing goes by, while the sealed plan stays', () => {
    const doseOn = (day: number) =>
      dueMixes(givenPlan(state), day, sealed.units).flatMap((d) => d.uses.map(doseAmount));
    expect(doseOn(8)).toEqual([2]);
    expect(doseOn(10)).toEqual([4]);
    expect(state.plan).toBe(sealed);
    expect(mixesDue(state, 10).wanted).toBe(2);
  });
  it('costs what is given: five times one dose and five times twice as much', () => {
    const cost = (t: (typeof sealed.treatments)[number]) => {
      const c = treatmentCost(t, sealed.products, sealed.currency);
      return c.ok ? c.value.perUnit.minor : NaN;
    };
    const given = givenPlan(state).treatments.find((t) => t.id === a.id)!;
    expect(cost(given) / cost(a)).toBeCloseTo(1.5, 12);
  });
  it('is the sealed plan again once the line is taken back', () => {
    const back = entry(
      { kind: 'correction', supersedes: 'change', replacement: null, reason: 'taken back' },
      'back',
    );
    expect(givenPlan(deriveState(sealed, [line, back]))).toBe(sealed);
  });
});
