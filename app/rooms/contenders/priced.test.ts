import { describe, expect, it } from 'vitest';
import { plan, product } from '~core/testing/trial';
import { usMeasures } from '~core/quantity/units';
import { newUse } from './newContender';
import { alikeOf, amountText, dosedUses, howMuch, pricedUse, summed, waterOf, whenOf } from './priced';

// A litre costs 10.00.
const feed = product({ labelRate: '5 mL/L' });
const use = (over: object = {}) => ({
  ...{ ...newUse(feed), solutionLPerUnit: '0.4', timesPerUnit: '4' },
  ...over,
});
const of = (plantsPerUnit = '') => ({
  ...{
    measures: usMeasures,
    unitNoun: 'tray',
    conditions: { containerVolumeL: '', areaPerUnitCm2: '', plantsPerUnit },
  },
});

describe('a dose in words', () => {
  it.each([
    [{}, '5 mL/L', '0.4 L', '4 times'],
    [{ amount: '2', unit: 'g' }, '2 g per L', '0.4 L', '4 times'],
    [
      { amount: '2', unit: 'g', solutionLPerUnit: '', timesPerUnit: '1', fromDay: '3' },
      '2 g',
      '',
      'once on day 3',
    ],
    [
      { solutionLPerUnit: '1 gal', fromDay: '3', everyDays: '7' },
      '5 mL/L',
      '1 gal',
      '4 times from day 3, every 7 days',
    ],
    [{ strengthPercent: '50', stage: 'seedling' }, '50 % of 5 mL/L', '0.4 L', '4 times, seedling'],
    [{ amount: '1', unit: 'piece', solutionLPerUnit: '' }, '1', '', '4 times'],
  ])('%o', (over, much, water, when) => {
    expect([howMuch(use(over)), waterOf(use(over)), whenOf(use(over))]).toEqual([much, water, when]);
  });
  it('isn’t anything yet where nothing was typed', () => {
    expect([amountText({}), howMuch({}), waterOf({})]).toEqual(['', '', '']);
  });
});

describe('what it costs', () => {
  it('a dose and a unit: 2 mL of a litre at 10.00, four times', () => {
    const p = pricedUse(use(), feed, of());
    expect([p.perDose?.minor, p.perUnit?.minor, p.fault]).toEqual([2, 8, null]);
    expect(p.bought).toBe('500 doses in a pack of 1 L at €10.00');
  });
  it('a rate by the plant is that of all plants of a unit, and asks how many there are', () => {
    const byPlant = use({ amount: '15 g per plant', solutionLPerUnit: '' });
    const solid = product({ form: 'granules', packs: [{ ...feed.packs[0]!, size: 1, unit: 'kg' }] });
    expect(pricedUse(byPlant, solid, of())).toMatchObject({
      fault: 'How many plants are in a tray? The rate is by the plant.',
      perDose: null,
    });
    const eight = pricedUse(byPlant, solid, of('8'));
    expect(eight.comesTo).toBe('8 plants: 120 g to each tray');
    expect(eight.perDose?.minor).toBeCloseTo(120, 9);
    const half = pricedUse({ ...byPlant, strengthPercent: '50' }, solid, of('8'));
    expect(half.comesTo).toBe('8 plants: 60 g to each tray');
    expect(half.perDose?.minor).toBeCloseTo(60, 9);
  });
  it('isn’t said of a product that isn’t chosen or has no price', () => {
    expect(pricedUse(use(), undefined, of()).perDose).toBeNull();
    expect(pricedUse(use(), product({ packs: [] }), of())).toMatchObject({ perDose: null, perUnit: null });
  });
});

describe('what all doses share', () => {
  it('is said where it is the same for all of at least two', () => {
    expect(alikeOf([use(), use({ amount: '2 mL/L' })])).toEqual({ when: '4 times', water: '0.4 L' });
    expect(alikeOf([use(), use({ timesPerUnit: '2' })])).toEqual({ when: null, water: '0.4 L' });
    expect(alikeOf([use(), use({ solutionLPerUnit: '' })]).water).toBeNull();
    expect(alikeOf([use({ solutionLPerUnit: '' }), use({ solutionLPerUnit: '' })]).water).toBeNull();
    expect(alikeOf([use()])).toEqual({ when: null, water: null });
  });
  it('what is put in place has no days', () => {
    const lamp = product({ id: 'lamp' as never, category: 'light' });
    const contenders = [{ products: [use(), { ...newUse(lamp), amount: '1' }] }];
    expect(dosedUses(contenders, [feed, lamp])).toHaveLength(1);
  });
});

it('costs of two currencies aren’t added as they are', () => {
  const [euro, dollar] = [
    { minor: 100, currency: 'EUR' },
    { minor: 100, currency: 'USD' },
  ];
  const p = { ...plan(), currency: 'EUR' };
  const rated = { ...p, mixing: { ...p.mixing, exchange: [{ currency: 'USD', rate: 0.9 }] } };
  expect(summed([euro, euro], p)).toEqual({ minor: 200, currency: 'EUR' });
  expect(summed([euro, dollar], p)).toBeNull();
  expect(summed([euro, dollar], rated)?.minor).toBeCloseTo(190, 9);
  expect([summed([euro, null], p), summed([], p)]).toEqual([null, null]);
});
