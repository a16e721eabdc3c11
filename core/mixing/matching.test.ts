import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PackId, TreatmentId } from '../model/ids';
import { analysis, product } from '../testing/trial';
import { type Arm, againstLabel, costPerLitre, matchDoses } from './matching';

const powder = product({
  id: 'powder' as never,
  form: 'powder',
  analysis: analysis({ nPercent: 10, k2oPercent: 20, caPercent: 5 }),
  labelRate: '1–2 g/L',
  packs: [
    { id: 'p' as PackId, size: 1, unit: 'kg', priceMinor: 2000, currency: 'EUR', boughtOn: null, count: 1 },
  ],
});
const liquid = product({
  id: 'liquid' as never,
  analysis: analysis({ nPercent: 4, k2oPercent: 5 }),
  densityKgPerL: 1.25,
  labelRate: '5 mL/L',
  packs: [
    { id: 'l' as PackId, size: 1, unit: 'L', priceMinor: 1000, currency: 'USD', boughtOn: null, count: 1 },
  ],
});
const unknown = product({ id: 'unknown' as never });
const arm = (id: string, p = powder, amount = 1, unit: 'g' | 'mL' = 'g'): Arm => ({
  id: id as TreatmentId,
  doses: [{ product: p, amount, unit, packId: null }],
});
const arms = [{ id: 'Water' as TreatmentId, doses: [] }, arm('A'), arm('B', liquid, 5, 'mL')];
const around = { water: null, currency: 'EUR', exchange: [{ currency: 'USD', rate: 0.9 }] };
const match = (basis: Parameters<typeof matchDoses>[1], list: readonly Arm[] = arms) =>
  matchDoses(list, basis, 'A' as TreatmentId, around);

describe('doses made equal', () => {
  it('as they are: 100 against 250 mg/L of nitrogen', () => {
    const [water, a, b] = match({ kind: 'asIs' });
    expect(water!.solution.mgPerL.N).toBe(0);
    expect(a!.solution.mgPerL.N).toBeCloseTo(100, 9);
    expect(b!.solution.mgPerL.N).toBeCloseTo(250, 9);
  });
  it('by nitrogen: the liquid gets 2 mL, far below its label', () => {
    const [, a, b] = match({ kind: 'element', element: 'N' });
    expect(a!.doses[0]!.factor).toBe(1);
    expect(b!.doses[0]!.amount).toBeCloseTo(2, 9);
    expect(b!.solution.mgPerL.N).toBeCloseTo(100, 9);
    expect(b!.doses[0]!.label).toMatchObject({ stand: 'below', times: expect.closeTo(0.4, 9) });
  });
  it('by strength and by money', () => {
    const [, a, b] = match({ kind: 'strength' });
    expect(b!.solution.strength.ec).toBeCloseTo(a!.solution.strength.ec, 9);
    const money = match({ kind: 'money' });
    // 1 g at 20.00 a kilogram is 2 cents; 5 mL at 9.00 (10 dollars) a litre 4.5 cents
    expect(costPerLitre(arms[2]!, around)!.minor).toBeCloseTo(4.5, 9);
    expect(money.map((m) => Number(m.costPerL!.minor.toFixed(9)))).toEqual([0, 2, 2]);
  });
  it('by label: each to the low end, the middle or the high end', () => {
    const at = (end: 'low' | 'middle' | 'high') =>
      match({ kind: 'label', end }, [arm('A', powder, 7), arm('B', liquid, 5, 'mL')]).map(
        (m) => m.doses[0]!.amount,
      );
    expect(at('low')[0]).toBeCloseTo(1, 9);
    expect(at('middle')[0]).toBeCloseTo(1.5, 9);
    expect(at('high')).toEqual([expect.closeTo(2, 9), expect.closeTo(5, 9)]);
  });
  it('says what can’t be made equal, and leaves it as it is', () => {
    const list = [arm('A'), arm('B', unknown, 3, 'mL')];
    for (const [basis, problem] of [
      [{ kind: 'element', element: 'N' }, 'noElement'],
      [{ kind: 'strength' }, 'noStrength'],
      [{ kind: 'label', end: 'low' }, 'noLabel'],
      [{ kind: 'money' }, null],
    ] as const) {
      const b = match(basis, list)[1]!;
      expect(b.problem).toBe(problem);
      if (problem) expect(b.doses[0]!.amount).toBe(3);
    }
    expect(match({ kind: 'element', element: 'Fe' })[2]!.problem).toBe('noElement');
    expect(costPerLitre(arm('A', product({ packs: [] })), around)).toBeNull();
    expect(costPerLitre(arms[2]!, { ...around, exchange: [] })).toBeNull();
  });
  it('all arms get the reference’s mg/L, whatever their doses were', () => {
    const dose = fc.double({ min: 0.01, max: 20, noNaN: true });
    fc.assert(
      fc.property(dose, dose, (x, y) => {
        const list = [arm('A', powder, x), arm('B', liquid, y, 'mL')];
        const [a, b] = match({ kind: 'element', element: 'K' }, list);
        expect(b!.solution.mgPerL.K / a!.solution.mgPerL.K).toBeCloseTo(1, 9);
      }),
    );
  });
});

it('a dose against its label', () => {
  const stand = (amount: number, p = powder) => againstLabel({ product: p, amount, unit: 'g' });
  expect(stand(1.5)).toEqual({ times: 1, stand: 'within' });
  expect(stand(0.5)).toEqual({ times: 0.5, stand: 'below' });
  expect(stand(3)).toEqual({ times: 1.5, stand: 'above' });
  expect(stand(3, product({ labelRate: '1 tbsp', form: 'powder' }))).toBeNull();
});
