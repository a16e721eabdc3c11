import { describe, expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import { plan, product, use } from '../testing/trial';
import { nitrogenPerDose, nitrogenPerUnit } from './nitrogen';

const analysis = {
  basis: 'w/w' as const,
  nPercent: 10,
  p2o5Percent: 0,
  k2oPercent: 0,
  caPercent: null,
  mgPercent: null,
  sPercent: null,
};

describe('nitrogen in a dose', () => {
  it('is the label’s share of a weight', () => {
    expect(nitrogenPerDose({ amount: 4, unit: 'g' }, product({ analysis }))).toBeCloseTo(0.4, 12);
    // NIST SP 811: 1 oz is 28.349523125 g
    expect(nitrogenPerDose({ amount: 1, unit: 'oz' }, product({ analysis }))).toBeCloseTo(2.8349523125, 9);
  });
  it('of a liquid by weight needs the density, by volume doesn’t', () => {
    expect(nitrogenPerDose({ amount: 5, unit: 'mL' }, product({ analysis }))).toBeNull();
    expect(nitrogenPerDose({ amount: 5, unit: 'mL' }, product({ analysis, densityKgPerL: 1.2 }))).toBeCloseTo(
      0.6,
      12,
    );
    const byVolume = { ...analysis, basis: 'w/v' as const };
    // 10 % w/v is 10 g in 100 mL
    expect(nitrogenPerDose({ amount: 5, unit: 'mL' }, product({ analysis: byVolume }))).toBeCloseTo(0.5, 12);
  });
  it('isn’t known without an analysis, or by the piece', () => {
    expect(nitrogenPerDose({ amount: 5, unit: 'g' }, product())).toBeNull();
    expect(nitrogenPerDose({ amount: 1, unit: 'piece' }, product({ analysis }))).toBeNull();
  });
});

it('a unit gets all its doses; one unknown product makes the sum unknown', () => {
  const feed = product({ analysis });
  const [t] = plan().treatments;
  const twice = { ...t!, products: [use({ amount: 2, unit: 'g', solutionLPerUnit: 0.5, timesPerUnit: 6 })] };
  expect(nitrogenPerUnit(twice, { products: [feed] })).toBeCloseTo(0.6, 12);
  expect(nitrogenPerUnit(t!, { products: [] })).toBe(0);
  const other = { ...twice, products: [...twice.products, use({ productId: 'x' as ProductId })] };
  expect(nitrogenPerUnit(other, { products: [feed] })).toBeNull();
});
