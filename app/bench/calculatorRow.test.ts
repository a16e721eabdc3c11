import { describe, expect, it } from 'vitest';
import { usMeasures } from '~core/quantity/units';
import { analysis, product } from '~core/testing/trial';
import { emptyRow, exampleRow, readRow } from './calculatorRow';

const shelf = [
  product({ id: 'dry' as never, form: 'powder', analysis: analysis({ nPercent: 10 }) }),
  product({ id: 'poured' as never, ownMeasures: [{ name: 'cap', amount: 10, unit: 'mL' }] }),
];
const read = (over: object, tankL: number | null = 4) =>
  readRow({ ...emptyRow(), ...over }, shelf, usMeasures, tankL);

describe('a row of the calculator', () => {
  it('empty says nothing', () => expect(read({})).toEqual({ dose: null, errors: {}, note: '' }));
  it('the example is 12 g in five gallons', () => {
    const { dose, errors } = readRow(exampleRow(), [], usMeasures, 1);
    expect(errors).toEqual({});
    // 12 g in 5 × 3.785411784 L
    expect(dose!.use).toMatchObject({ amount: expect.closeTo(0.634, 3), unit: 'g' });
    expect(dose!.product.analysis).toMatchObject({ nPercent: 12, k2oPercent: 18, caPercent: 4 });
  });
  it('a product of the library brings its caps; a tank is the batch', () => {
    const { dose } = read({ productId: 'poured', rate: '2 caps per tank' });
    expect(dose!.use).toMatchObject({ amount: 5, unit: 'mL' });
    expect(read({ productId: 'poured', rate: '8 mL' }).dose!.use.amount).toBe(2);
    expect(read({ productId: 'poured', rate: '8 mL' }, null)).toEqual({ dose: null, errors: {}, note: '' });
  });
  it.each([
    [{ analysis: '12-6', rate: '1 g/L' }, 'analysis', /three figures/],
    [{ density: 'heavy', rate: '1 g/L' }, 'density', /kg\/L/],
    [{ rate: '1 smidgen/L' }, 'rate', /smidgen/],
    [{ rate: '1 tsp/gal' }, 'density', /by the spoon/],
    [{ productId: 'dry', rate: '1 tsp/gal' }, 'rate', /five spoons/],
  ] as const)('%j says what is wrong at its field', (over, field, said) => {
    expect(read(over).errors[field]).toMatch(said);
  });
  it('a range is taken at its middle, and said so', () => {
    const { dose, errors, note } = read({ productId: 'dry', rate: '1–2 g/L' });
    expect(dose!.use.amount).toBe(1.5);
    expect(errors).toEqual({});
    expect(note).toMatch(/middle, 1.5 g\/L/);
  });
  it('a dry product by the spoon is weighed through the density typed', () => {
    expect(read({ analysis: '10-0-0', density: '0,95', rate: '1 tsp/gal' }).dose!.product.densityKgPerL).toBe(
      0.95,
    );
  });
});
