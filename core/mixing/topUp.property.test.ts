// What is added and what is shown agree, over products, waters and volumes; pure water never takes less.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { analysis, plan, product, use } from '../testing/trial';
import { solutionOf } from './solution';
import { strengthCorrection } from './topUp';

const fed = (npk: [number, number, number], gPerL: number, waterEc: number | null): Plan => {
  const base = plan({ treatments: ['Water', 'A'] });
  return {
    ...base,
    mixing: { ...base.mixing, water: { ...base.mixing.water, ec: waterEc } },
    products: [
      product({
        ...{ id: 'feed' as ProductId, form: 'powder' },
        analysis: analysis({ nPercent: npk[0], p2o5Percent: npk[1], k2oPercent: npk[2] }),
      }),
    ],
    treatments: base.treatments.map((t, i) => ({
      ...t,
      products: i === 0 ? [] : [use({ amount: gPerL, unit: 'g', solutionLPerUnit: 1 })],
    })),
  };
};
const grams = (p: Plan, volumeL: number, ec: number, target: number): number => {
  const found = strengthCorrection(p, p.treatments[1]!.id, 0, { volumeL, ec }, target);
  if (found.tag !== 'strengthen') throw new Error(found.tag);
  return found.doses[0]!.amount;
};

describe('topping up', () => {
  it('0.5 g/L of a 20-20-20 in water of 0.6 mS/cm: 10 L from 1.1 to 1.4 take about 2.2 g, not 15', () => {
    const g = grams(fed([20, 20, 20], 0.5, 0.6), 10, 1.1, 1.4);
    // By hand: a litre of 1 g has 14.28 mmol N, 2.82 mmol P and 4.25 mmol K. Charges balance with 12.9 meq where part of
    // the unstated N is ammonium (0.095 × 12.9 = 1.2 mS/cm a gram), so 0.3 mS/cm in 10 L take some 2.4 g.
    expect(g).toBeGreaterThan(1.8);
    expect(g).toBeLessThan(3.4);
  });
  it('adds what it says: the strength that is reached is the one that was wanted, within 2 %', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          fc.integer({ min: 5, max: 25 }),
          fc.integer({ min: 1, max: 20 }),
          fc.integer({ min: 5, max: 30 }),
        ),
        fc.double({ min: 0.3, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 100, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        (npk, gPerL, waterEc, volumeL, more) => {
          const p = fed(npk, gPerL, waterEc);
          const dose = (g: number) =>
            solutionOf([{ product: p.products[0]!, amount: g, unit: 'g' }], p.mixing.water);
          // The vessel holds the planned dose in this water.
          const held = dose(gPerL).strength.ec;
          const target = held + more;
          const added = grams(p, volumeL, held, target) / volumeL;
          const reached = dose(gPerL + added).strength.ec;
          expect(Math.abs(reached / target - 1)).toBeLessThan(0.02);
          // Never more than would bring pure water there.
          const pure = fed(npk, gPerL, 0);
          expect(added * volumeL).toBeLessThanOrEqual(grams(pure, volumeL, 0, target) * (1 + 1e-9));
        },
      ),
    );
  });
  it('the water’s own strength adds to what is dissolved, and the constant counts once', () => {
    const p = fed([15, 0, 15], 1, 0.8);
    const of = (ec: number | null) =>
      solutionOf([{ product: p.products[0]!, amount: 1, unit: 'g' }], { ...p.mixing.water, ec }).strength.ec;
    const pure = of(0);
    expect(of(0.8) - 0.8).toBeCloseTo(pure - 0.19, 6);
  });
});
