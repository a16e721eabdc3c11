import { describe, expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import { analysis as label, plan, product, use } from '../testing/trial';
import { elementPerDose, elementPerUnit } from './perUnit';

const tenPercent = label({ nPercent: 10 });

describe('nitrogen in a dose', () => {
  it('is the label’s share of a weight', () => {
    expect(elementPerDose({ amount: 4, unit: 'g' }, product({ analysis: tenPercent }), 'N')).toBeCloseTo(
      0.4,
      12,
    );
    // NIST SP 811: 1 oz is 28.349523125 g
    expect(elementPerDose({ amount: 1, unit: 'oz' }, product({ analysis: tenPercent }), 'N')).toBeCloseTo(
      2.8349523125,
      9,
    );
  });
  it('of a liquid by weight needs the density, by volume doesn’t', () => {
    expect(elementPerDose({ amount: 5, unit: 'mL' }, product({ analysis: tenPercent }), 'N')).toBeNull();
    expect(
      elementPerDose({ amount: 5, unit: 'mL' }, product({ analysis: tenPercent, densityKgPerL: 1.2 }), 'N'),
    ).toBeCloseTo(0.6, 12);
    const byVolume = { ...tenPercent, basis: 'w/v' as const };
    // 10 % w/v is 10 g in 100 mL
    expect(elementPerDose({ amount: 5, unit: 'mL' }, product({ analysis: byVolume }), 'N')).toBeCloseTo(
      0.5,
      12,
    );
  });
  it('isn’t known without an analysis, or by the piece', () => {
    expect(elementPerDose({ amount: 5, unit: 'g' }, product(), 'N')).toBeNull();
    expect(elementPerDose({ amount: 1, unit: 'piece' }, product({ analysis: tenPercent }), 'N')).toBeNull();
  });
});

it('a unit gets all its doses; one unknown product makes the sum unknown', () => {
  const feed = product({ analysis: tenPercent });
  const [t] = plan().treatments;
  const twice = { ...t!, products: [use({ amount: 2, unit: 'g', solutionLPerUnit: 0.5, timesPerUnit: 6 })] };
  expect(elementPerUnit(twice, { products: [feed] }, 'N')).toBeCloseTo(0.6, 12);
  expect(elementPerUnit(t!, { products: [] }, 'N')).toBe(0);
  // at half strength half of it
  const half = { ...twice, products: [{ ...twice.products[0]!, strengthPercent: 50 }] };
  expect(elementPerUnit(half, { products: [feed] }, 'N')).toBeCloseTo(0.3, 12);
  const other = { ...twice, products: [...twice.products, use({ productId: 'x' as ProductId })] };
  expect(elementPerUnit(other, { products: [feed] }, 'N')).toBeNull();
});
