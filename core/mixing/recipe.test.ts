import { describe, expect, it } from 'vitest';
import { usMeasures } from '../quantity/units';
import { analysis, product, use } from '../testing/trial';
import { lineFromStock, recipeOf, solutionMade } from './recipe';
import { inOwnMeasures, spoonSteps, spoonsText } from './spoons';

const powder = product({
  id: 'powder' as never,
  form: 'powder',
  analysis: analysis({ nPercent: 10 }),
  spoon: { volumeMl: 5, massesG: [4.7, 4.8, 4.75] },
});
const bare = product({ id: 'bare' as never, form: 'powder' });
const liquid = product({
  id: 'liquid' as never,
  densityKgPerL: 1.2,
  ownMeasures: [{ name: 'cap', amount: 10, unit: 'mL' }],
});
const grams = use({ productId: powder.id, amount: 0.634, unit: 'g', solutionLPerUnit: 1 });
const shelf = [powder, bare, liquid];
const scale = { scaleStepG: 1, liquidStepMl: 0.5 };
const spoon = { ...scale, spoonStepMl: 4.92892159375 / 4 };

describe('a recipe', () => {
  it('weighs what is dry, pours what is liquid, counts what is a piece', () => {
    const uses = [
      grams,
      use({ productId: liquid.id, amount: 5, unit: 'mL' }),
      use({ productId: bare.id, amount: 2, unit: 'piece' }),
      use({ productId: bare.id, amount: 1.3, unit: 'mL' }),
      use({ productId: 'gone' as never }),
    ];
    const { lines } = recipeOf(uses, shelf, 3.785, scale, null);
    expect(lines.map((l) => [l.unit, l.measured])).toEqual([
      ['g', 2],
      ['mL', 19],
      ['piece', 8],
      // a dry product without a density can only be measured by volume
      ['mL', 5],
    ]);
  });
  it('by the spoon: steps of a quarter teaspoon, through the weighed spoons', () => {
    const [line] = recipeOf([grams], shelf, 3.785, spoon, null).lines;
    // 2.4 g at 0.95 g/mL are 2.526 mL: two quarters of 4.929 mL
    expect(line).toMatchObject({ unit: 'mL', spooned: true, wanted: expect.closeTo(2.526, 2) });
    expect(line!.measured).toBeCloseTo(4.92892159375 / 2, 9);
    expect(line!.errorPercent).toBeCloseTo(-2.4, 1);
    // what has no density is weighed as before
    const other = recipeOf([{ ...grams, productId: bare.id }], shelf, 3.785, spoon, null).lines[0]!;
    expect(other).toMatchObject({ unit: 'g', spooned: false, measured: 2 });
  });
  it('at half strength half of it; elements follow the rounded amounts', () => {
    const half = recipeOf([{ ...grams, amount: 2, strengthPercent: 50 }], shelf, 2.4, scale, null);
    expect(half.lines[0]).toMatchObject({ wanted: 2.4, measured: 2 });
    expect(half.wanted!.mgPerL.N).toBeCloseTo(100, 9);
    expect(half.made!.mgPerL.N).toBeCloseTo((100 * 2) / 2.4, 9);
  });
  it('of direct doses is for units, and no solution', () => {
    const r = recipeOf([use({ productId: bare.id, amount: 2, unit: 'piece' })], shelf, 4, scale, null, true);
    expect(r).toMatchObject({ wanted: null, made: null, lines: [{ measured: 8 }] });
  });
});

it('what a stock solution gives holds what was wanted', () => {
  const stock = { batch: 'S1', amount: 25, unit: 'g' as const, volumeL: 0.25 };
  const line = { unit: 'g' as const, wanted: 2.4, spooned: false };
  const taken = lineFromStock(line, stock, 1)!;
  expect(taken).toMatchObject({ batch: 'S1', take: { measured: 24 }, held: expect.closeTo(2.4, 9) });
  // neither a liquid out of a powder's stock, nor a powder by the spoon
  expect(lineFromStock({ ...line, unit: 'mL' }, stock, 1)).toBeNull();
  expect(lineFromStock({ ...line, spooned: true }, stock, 1)).toBeNull();
  // a liquid thinned one in five: 1.32 mL are in 6.6 mL
  const thin = { batch: 'S2', amount: 20, unit: 'mL' as const, volumeL: 0.1 };
  expect(lineFromStock({ unit: 'mL', wanted: 1.32, spooned: false }, thin, 0.5)).toMatchObject({
    take: { measured: 6.5 },
    held: expect.closeTo(1.3, 9),
  });
  const made = solutionMade([{ product: powder, unit: 'g', amount: taken.held }], 2.4, null);
  expect(made.mgPerL.N).toBeCloseTo(100, 9);
});

it('an amount in spoons and caps, with the spread of the spoons', () => {
  // 4.75 g of a powder of 0.95 g/mL are 5 mL: 1.0144 US teaspoons
  const [tsp] = inOwnMeasures(powder, 4.75, 'g', usMeasures);
  expect(tsp).toMatchObject({
    name: 'US tsp',
    count: expect.closeTo(1.0144, 4),
    spreadPercent: expect.closeTo(1.05, 2),
  });
  const metric = inOwnMeasures(liquid, 30, 'mL', { spoon: 'metric', gallon: 'us' });
  expect(metric.map((m) => [m.name, m.count])).toEqual([
    ['cap', 3],
    ['metric tbsp', 2],
  ]);
  expect(inOwnMeasures(bare, 5, 'g', usMeasures)).toEqual([]);
  expect(inOwnMeasures(liquid, 5, 'piece', usMeasures)).toEqual([]);
});

it('spoons in words', () => {
  const tsp = 4.92892159375;
  expect([0.25, 0.5, 1, 1.5, 2.75, 0, 1.1].map((n) => spoonsText(n * tsp, usMeasures))).toEqual([
    '¼ US tsp',
    '½ US tsp',
    '1 US tsp',
    '1½ US tsp',
    '2¾ US tsp',
    '0 US tsp',
    '1.1 US tsp',
  ]);
  expect(spoonSteps({ spoon: 'metric', gallon: 'us' })).toEqual([
    { label: '¼ metric tsp', ml: 1.25 },
    { label: '½ metric tsp', ml: 2.5 },
    { label: '1 metric tsp', ml: 5 },
  ]);
});
