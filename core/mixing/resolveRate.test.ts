// Gallons and square feet: NIST SP 811, appendix B.
import { describe, expect, it } from 'vitest';
import { usMeasures } from '../quantity/units';
import { product } from '../testing/trial';
import { aroundProduct, labelRange, rateNote, readRate } from './resolveRate';

const powder = product({ form: 'powder', ownMeasures: [{ name: 'cap', amount: 6, unit: 'g' }] });
const liquid = product({ form: 'liquid' });
const around = (p = powder, tankL: number | null = null, areaM2: number | null = null) =>
  aroundProduct(p, usMeasures, { tankL, areaM2 });
const read = (text: string, a = around()) => readRate(text, a);

describe('a rate per litre', () => {
  it.each([
    ['12 g / 5 gal', 12 / (5 * 3.785411784), 'g'],
    ['1 tsp/gal', 4.92892159375 / 3.785411784, 'mL'],
    ['¼ tsp per quart', (0.25 * 4.92892159375) / 0.946352946, 'mL'],
    ['5 mL/4 L', 1.25, 'mL'],
    ['500 mg/L', 0.5, 'g'],
    ['0.2 %', 2, 'g'],
    ['0.2 % v/v', 2, 'mL'],
    ['1:250', 4, 'g'],
  ] as const)('%s', (text, expected, unit) => {
    const r = read(text);
    expect(r).toMatchObject({ ok: true, value: { unit, per: 'L' } });
    expect(r.ok && r.value.low).toBeCloseTo(expected, 10);
    expect(r.ok && r.value.high).toBeCloseTo(expected, 10);
  });
  it('a liquid’s per cent and ratio are by volume', () => {
    expect(read('0.2 %', around(liquid))).toMatchObject({ value: { low: 2, unit: 'mL' } });
    expect(read('1:500', around(liquid))).toMatchObject({ value: { low: 2, unit: 'mL' } });
  });
  it('an ounce of a liquid is a fluid one, of a powder a weight', () => {
    const fluid = read('1 oz/gal', around(liquid));
    expect(fluid).toMatchObject({ value: { unit: 'mL' } });
    // 29.5735 mL in 3.785411784 L
    expect(fluid.ok && fluid.value.low).toBeCloseTo(7.8125, 4);
    expect(read('1 oz/gal')).toMatchObject({ value: { unit: 'g', low: expect.closeTo(7.4892, 4) } });
  });
  it('a tank’s dose is shared over what it holds', () => {
    expect(read('2 caps per tank', around(powder, 2.4))).toMatchObject({
      value: { low: 5, unit: 'g', per: 'L' },
    });
    expect(read('2 caps per tank')).toEqual({ ok: false, error: expect.stringMatching(/tank hold/) });
    expect(read('2 pumps per tank', around(powder, 2))).toEqual({
      ok: false,
      error: expect.stringMatching(/How much is one pump stroke/),
    });
  });
});

describe('a rate per unit', () => {
  it('as it is, by the pot, by area', () => {
    expect(read('1 tbsp')).toMatchObject({ value: { per: 'unit', unit: 'mL' } });
    expect(read('3 tablets per pot')).toMatchObject({ value: { low: 3, unit: 'piece', per: 'unit' } });
    const lawn = read('10 L per 1000 sq ft', around(liquid, null, 2));
    // 10 L on 92.90304 m², of which a unit has 2
    expect(lawn.ok && lawn.value.low).toBeCloseTo((10_000 * 2) / 92.90304, 8);
    expect(read('50 g/m²')).toEqual({ ok: false, error: expect.stringMatching(/area/) });
    expect(read('1 tablet per m²')).toEqual({ ok: false, error: expect.stringMatching(/each unit/) });
  });
});

it('a label’s range is in the label’s own spoons and gallons', () => {
  const p = product({
    labelRate: '1–2 tsp per gallon',
    labelMeasures: { spoon: 'metric', gallon: 'imperial' },
  });
  expect(labelRange(p)).toMatchObject({ low: 5 / 4.54609, high: 10 / 4.54609, unit: 'mL' });
  expect(labelRange(product())).toBeNull();
  expect(labelRange(product({ labelRate: 'a lot' }))).toBeNull();
});

describe('plants in a unit', () => {
  const around = (unitNoun: string, plantsPerUnit: number | null) =>
    aroundProduct({ form: 'powder', ownMeasures: [] }, usMeasures, {
      tankL: null,
      areaM2: null,
      unitNoun,
      plantsPerUnit,
    });
  const cups = (text: string, noun: string, plants: number | null) => {
    const rate = readRate(text, around(noun, plants));
    if (!rate.ok) throw new Error(rate.error);
    // a US cup is 236.588 mL: NIST SP 811
    return rate.value.low / 236.5882365;
  };
  it.each([
    ['1 cup per plant', 'tray', 4, 4],
    ['1 cup per plant', 'plant', 4, 1],
    ['1 cup per tray', 'tray', 4, 1],
  ])('“%s” to a %s of %s plants is %s cups', (text, noun, plants, expected) => {
    expect(cups(text, noun, plants)).toBeCloseTo(expected, 9);
  });
  it('is asked where nobody has said how many there are: never one', () => {
    expect(readRate('15 g per plant', around('row section', null))).toEqual({
      ok: false,
      error: 'How many plants are in a row section? The rate is by the plant.',
    });
    expect(cups('1 cup per tray', 'tray', null)).toBeCloseTo(1, 9);
    expect(cups('1 cup per plant', 'plant', null)).toBeCloseTo(1, 9);
  });
  it('says what it took a spoon for', () => {
    expect(rateNote('1 slightly rounded tsp')).toContain('level');
    expect(rateNote('1 tsp')).toBe('');
  });
});
