// Units: NIST SP 811, appendix B. Money: ISO 4217 minor units.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Treatment } from '../model/plan';
import { amountUnits } from '../model/product';
import { convertAmount, fromGrams, toGrams, weightUnits } from '../quantity/amount';
import { plan, product, use } from '../testing/trial';
import { formatMoney, sayMoney, fromMinor, inCurrency, toMinor } from '../quantity/money';
import {
  costPerExtraResult,
  costPerResult,
  productCost,
  describeCostError,
  treatmentCost,
} from './treatmentCost';

describe('amounts', () => {
  it.each([
    [1, 'lb', 'g', 453.59237],
    [1, 'oz', 'g', 28.349523125],
    [1, 'gal', 'L', 3.785411784],
    [1, 'fl oz', 'mL', 29.5735295625],
    [16, 'oz', 'lb', 1],
    [128, 'fl oz', 'gal', 1],
  ] as const)('%d %s is so many %s', (amount, from, to, expected) => {
    const r = convertAmount(amount, from, to, null);
    expect(r.ok && r.value).toBeCloseTo(expected, 12);
  });
  it('goes from mass to volume only with a density, and never to pieces', () => {
    expect(convertAmount(1, 'kg', 'L', 1.25)).toEqual({ ok: true, value: 0.8 });
    expect(convertAmount(1, 'kg', 'L', null)).toEqual({ ok: false, error: { tag: 'needsDensity' } });
    expect(convertAmount(1, 'piece', 'g', 1)).toMatchObject({ error: { tag: 'incomparable' } });
  });
  it('there and back is the same, for any units and density', () => {
    const unit = fc.constantFrom(...amountUnits.filter((u) => u !== 'piece'));
    const amount = fc.double({ min: 1e-3, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(
        amount,
        unit,
        unit,
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        (a, from, to, density) => {
          const there = convertAmount(a, from, to, density);
          const back = there.ok ? convertAmount(there.value, to, from, density) : there;
          expect(back.ok && back.value / a).toBeCloseTo(1, 10);
        },
      ),
    );
  });
  it('weights', () => {
    for (const u of weightUnits) expect(fromGrams(toGrams(3.2, u), u)).toBeCloseTo(3.2, 12);
  });
});

describe('money', () => {
  it.each([
    [1250, 'EUR', '€12.50'],
    [0.72, 'EUR', '€0.00720'],
    [0, 'EUR', '€0.00'],
    [1250, 'JPY', '¥1,250'],
    [5, 'USD', '$0.0500'],
  ])('%d minor %s reads %s', (minor, currency, text) => {
    expect(formatMoney({ minor, currency })).toBe(text);
  });
  it('typed prices come back as typed', () => {
    expect(toMinor(12.5, 'EUR')).toBe(1250);
    expect(toMinor(0.29 * 100, 'JPY')).toBe(29);
    expect(fromMinor(toMinor(19.99, 'USD'), 'USD')).toBe(19.99);
  });
});

describe('price of a dose', () => {
  it('10 mL of a litre at 10.00 is 0.10; five times 0.50; 100 doses', () => {
    const cost = productCost(use({ timesPerUnit: 5 }), product());
    expect(cost).toMatchObject({
      ok: true,
      value: { perDose: { minor: 10 }, perUnit: { minor: 50, currency: 'EUR' } },
    });
    expect(cost.ok && cost.value.dosesPerPack).toBe(100);
  });
  it('per litre of solution', () => {
    const cost = productCost(use({ amount: 2, solutionLPerUnit: 0.5 }), product());
    expect(cost.ok && cost.value.perDose.minor).toBe(1);
  });
  it('the pack that is named sets the price', () => {
    const packs = [
      ...product().packs,
      { ...product().packs[0]!, id: 'big' as never, size: 5, priceMinor: 4000 },
    ];
    const cost = productCost(use({ packId: 'big' as never }), product({ packs }));
    expect(cost.ok && cost.value.perDose.minor).toBe(8);
  });
  it('says what is missing', () => {
    expect(productCost(use(), product({ packs: [] }))).toMatchObject({ error: { tag: 'noPack' } });
    expect(productCost(use({ unit: 'g' }), product())).toMatchObject({ error: { tag: 'needsDensity' } });
    expect(productCost(use({ unit: 'piece' }), product())).toMatchObject({ error: { tag: 'incomparable' } });
  });
});

describe('a treatment', () => {
  const water = plan().treatments[0]!;
  const fed: Treatment = { ...water, products: [use(), use({ productId: 'other' as never })] };
  it('without products costs nothing when it is the untreated control', () => {
    expect(treatmentCost(water, [], 'EUR')).toMatchObject({
      value: { perUnit: { minor: 0, currency: 'EUR' } },
    });
  });
  it.each(['test', 'reference', 'base'] as const)('without products costs nobody knows what: %s', (role) => {
    const cost = treatmentCost({ ...water, role }, [], 'EUR');
    expect(cost).toMatchObject({ ok: false, error: { tag: 'noProduct' } });
    expect(describeCostError({ tag: 'noProduct' })).toBe('No product and dose is written down for it.');
  });
  it('adds its products up', () => {
    const both = [product(), product({ id: 'other' as never })];
    expect(treatmentCost(fed, both, 'EUR')).toMatchObject({ value: { perUnit: { minor: 20 } } });
  });
  it('never adds two currencies, and names a product that is gone', () => {
    const dollars = product({ id: 'other' as never, packs: [{ ...product().packs[0]!, currency: 'USD' }] });
    expect(treatmentCost(fed, [product(), dollars], 'EUR')).toMatchObject({
      error: { tag: 'currencies', currencies: ['EUR', 'USD'] },
    });
    expect(treatmentCost(fed, [product()], 'EUR')).toMatchObject({ error: { tag: 'unknownProduct' } });
  });
});

describe('other currencies and strengths', () => {
  const dollars = product({ packs: [{ ...product().packs[0]!, currency: 'USD' }] });
  it('are turned with the rate that was typed, whatever the currencies’ digits', () => {
    const usd = { minor: 1000, currency: 'USD' };
    expect(inCurrency(usd, 'USD', [])).toBe(usd);
    expect(inCurrency(usd, 'EUR', [])).toBeNull();
    expect(inCurrency(usd, 'EUR', [{ currency: 'USD', rate: 0.9 }])).toEqual({ minor: 900, currency: 'EUR' });
    // ten dollars at 150 are 1,500 yen, which have no cents
    expect(inCurrency(usd, 'JPY', [{ currency: 'USD', rate: 150 }])!.minor).toBeCloseTo(1500, 9);
    expect(
      inCurrency({ minor: 1500, currency: 'JPY' }, 'EUR', [{ currency: 'JPY', rate: 0.006 }])!.minor,
    ).toBeCloseTo(900, 9);
  });
  it('add up once there is a rate', () => {
    const water = plan().treatments[0]!;
    const fed = { ...water, products: [use(), use({ productId: 'other' as never })] };
    const both = [product(), { ...dollars, id: 'other' as never }];
    // 10 mL of a litre at 10.00 each: 0.10 and 0.09
    expect(treatmentCost(fed, both, 'EUR', [{ currency: 'USD', rate: 0.9 }])).toMatchObject({
      value: { perUnit: { minor: expect.closeTo(19, 9), currency: 'EUR' } },
    });
  });
  it('half strength is half the money, and a powder by volume goes through its spoons', () => {
    const half = productCost(use({ strengthPercent: 50 }), product());
    expect(half.ok && half.value.perDose.minor).toBe(5);
    const powder = product({
      form: 'powder',
      spoon: { volumeMl: 5, massesG: [4.75, 4.75] },
      packs: [{ ...product().packs[0]!, size: 1, unit: 'kg' }],
    });
    // 10 mL at 0.95 g/mL are 9.5 g of a kilogram at 10.00
    const spooned = productCost(use(), powder);
    expect(spooned.ok && spooned.value.perDose.minor).toBeCloseTo(9.5, 9);
  });
});

describe('cost of a result', () => {
  const euros = (minor: number) => ({ minor, currency: 'EUR' });
  it('per gram and per extra gram, at the estimate and at both ends of the interval', () => {
    expect(costPerResult(euros(50), 100)).toEqual(euros(0.5));
    expect(costPerResult(euros(50), 0)).toBeNull();
    expect(costPerExtraResult(euros(60), euros(10), { estimate: 20, low: 10, high: 50 })).toEqual({
      perExtra: euros(2.5),
      best: euros(1),
      worst: euros(5),
    });
  });
  it('has no upper end when the gain may be nothing, and no value without a gain', () => {
    expect(costPerExtraResult(euros(60), euros(10), { estimate: 20, low: -5, high: 50 })!.worst).toBeNull();
    expect(costPerExtraResult(euros(60), euros(10), { estimate: -1, low: -5, high: 5 })).toBeNull();
    expect(
      costPerExtraResult(euros(60), { minor: 10, currency: 'USD' }, { estimate: 9, low: 1, high: 20 }),
    ).toBeNull();
  });
});

it.each([
  [1.04, 'EUR', '1.0 ct'],
  [0.62, 'EUR', '0.6 ct'],
  [0.0312, 'EUR', '0.031 ct'],
  [2.5, 'USD', '2.5¢'],
  [7.25, 'GBP', '7.3p'],
  [12, 'EUR', '€0.120'],
  [0, 'EUR', '€0.00'],
  [250, 'EUR', '€2.50'],
  [3, 'JPY', '¥3'],
] as const)('%s hundredths of %s are said as %s', (minor, currency, said) => {
  expect(sayMoney({ minor, currency })).toBe(said);
});
