// What a unit gets, where volumes differ, parts are dissolved apart, or a unit is its own tank.
import { describe, expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import type { Plan, ProductUse } from '../model/plan';
import { analysis, plan, product, use } from '../testing/trial';
import { joined } from './apart';
import { batchOf, loggedAmounts } from './batch';
import { batchVolume, dueMixes } from './dueMixes';
import { applyMatch, matchedArms } from './matchPlan';
import { mixedInUnits } from './ownTank';
import { elementPerUnit, elementPerWeek } from './perUnit';

const feed = (id: string) =>
  product({ id: id as ProductId, name: id, form: 'powder', analysis: analysis({ nPercent: 10 }), packs: [] });
const dose = (id: string, over: Partial<ProductUse>) =>
  use({ productId: id as ProductId, amount: 1, unit: 'g', timesPerUnit: 10, ...over });
/** A litre of each has 100 mg of nitrogen; a bucket of A gets 2 L at a time, one of B 1 L. Ten feeds, ten days. */
const buckets: Plan = {
  ...plan({ treatments: ['Water', 'A', 'B'] }),
  products: [feed('a'), feed('b')],
  treatments: plan({ treatments: ['Water', 'A', 'B'] }).treatments.map((t, i) => ({
    ...t,
    products: i === 0 ? [] : [dose(i === 1 ? 'a' : 'b', { solutionLPerUnit: i === 1 ? 2 : 1 })],
  })),
};
const [, a, b] = buckets.treatments;

describe('units that get different volumes', () => {
  it('a litre is alike and a week isn’t', () => {
    const arms = matchedArms(buckets, { basis: { kind: 'asIs' }, day: 0, referenceId: null });
    expect(arms[1]!.solution.mgPerL.N).toBeCloseTo(arms[2]!.solution.mgPerL.N, 9);
    // 10 feeds × 2 L × 100 mg in 10/7 weeks
    expect(elementPerWeek(a!, buckets, 'N')! * 1000).toBeCloseTo(1400, 9);
    expect(elementPerWeek(b!, buckets, 'N')! * 1000).toBeCloseTo(700, 9);
  });
  it('made equal by the nutrient, a unit of each gets the same', () => {
    const equal = applyMatch(buckets, {
      basis: { kind: 'element', element: 'N' },
      day: 0,
      referenceId: a!.id,
    });
    const per = equal.treatments.map((t) => elementPerUnit(t, equal, 'N'));
    expect(per).toEqual([0, 2, 2]);
    expect(equal.treatments[2]!.products[0]!.amount).toBe(2);
  });
});

describe('parts dissolved apart', () => {
  const half = (id: string, apart: boolean) =>
    dose(id, { amount: 2, solutionLPerUnit: 0.5, ...(apart && { apart: true as const }) });
  it('two halves are a whole with half of each, not a half at double strength', () => {
    expect(joined([half('a', true), half('b', true)]).map((u) => [u.amount, u.solutionLPerUnit])).toEqual([
      [1, 1],
      [1, 1],
    ]);
    expect(joined([half('a', false), half('b', false)]).map((u) => u.amount)).toEqual([2, 2]);
  });
  it('are mixed as one vessel of both waters', () => {
    const p: Plan = {
      ...buckets,
      treatments: buckets.treatments.map((t, i) =>
        i === 1
          ? {
              ...t,
              products: [half('a', true), half('b', true)].map((u) => ({ ...u, fromDay: 0, everyDays: 7 })),
            }
          : { ...t, products: [] },
      ),
    };
    const [mix] = dueMixes(p, 0, p.units).filter((d) => d.kind === 'solution');
    expect(mix!.perUnitL).toBe(1);
    // What a unit gets in all is as it was: 2 g/L × 0.5 L of each.
    expect(elementPerUnit(p.treatments[1]!, p, 'N')).toBeCloseTo(10 * 2 * 0.1, 9);
  });
});

describe('a device’s own tank', () => {
  const caps = {
    rateText: '2 caps per tank',
    fromDay: 0,
    everyDays: 14,
    timesPerUnit: 2,
    solutionLPerUnit: 3,
  };
  const devices: Plan = {
    ...buckets,
    unitNoun: 'device',
    treatments: buckets.treatments.map((t, i) =>
      i === 1 ? { ...t, products: [dose('a', caps)] } : { ...t, products: [] },
    ),
  };
  const [mix] = dueMixes(devices, 0, devices.units).filter((d) => d.kind === 'solution');
  it('holds what it holds: nothing is added to spare', () => {
    expect(batchVolume(mix!, 10)).toBe(3);
    expect(mix!.tanks).toBe(3);
    const tools = { scaleStepG: null, liquidStepMl: null };
    const data = { plan: devices, names: {}, packs: [], stocks: [], blind: false };
    const batch = batchOf({ data, bottle: mix!, tools, size: 3, fromStock: {}, actual: [] });
    expect(batch.lines[0]!.given).toBeCloseTo(3, 9);
    expect(loggedAmounts(batch)[0]!.amount).toBeCloseTo(9, 9);
  });
  it('a batch that is handed out has some to spare', () => {
    const handedOut = { ...devices, mixing: { ...devices.mixing, inOwnTank: false } };
    const [one] = dueMixes(handedOut, 0, handedOut.units).filter((d) => d.kind === 'solution');
    expect(batchVolume(one!, 10)).toBeCloseTo(9.9, 9);
  });
  it.each([
    ['device', '1 mL/L', true],
    ['tray', '2 caps per tank', true],
    ['tray', '1 mL/L', false],
  ])('a %s dosed at “%s”: %s', (unitNoun, rateText, own) => {
    const p = {
      ...devices,
      unitNoun,
      treatments: devices.treatments.map((t) => ({
        ...t,
        products: t.products.map((u) => ({ ...u, rateText })),
      })),
    };
    expect(mixedInUnits(p)).toBe(own);
  });
});
