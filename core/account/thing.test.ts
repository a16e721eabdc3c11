// The words of the thing, and amounts a person would say.
import { expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import type { Plan, ProductUse } from '../model/plan';
import type { Product } from '../model/product';
import { amountWords, sayDf } from '../quantity/format';
import { packCaption, packTable } from '../report/packTable';
import { plan, product, use } from '../testing/trial';
import { sayMargin } from './thing';

const of = (over: Partial<Product>, given: Partial<ProductUse>): Plan => {
  const base = plan({ treatments: ['None', 'A'] });
  return {
    ...base,
    products: [product(over)],
    treatments: base.treatments.map((t, i) => ({
      ...t,
      products: i === 0 ? [] : [use({ productId: 'feed' as ProductId, ...given })],
    })),
  };
};
const heads = (p: Plan) => packTable(p, (x) => x)!.columns.map((c) => c.head);
const piece = [{ ...product().packs[0]!, size: 1, unit: 'piece' as const, priceMinor: 3100 }];

it.each([
  ['a feed in water', {}, { solutionLPerUnit: 1, timesPerUnit: 3 }, ['feeds in a pack', 'a feed', 'a week']],
  [
    'a pole',
    { category: 'accessory', packs: piece },
    { amount: 1, unit: 'piece' },
    ['set-ups in a pack', 'a set-up'],
  ],
  [
    'granules on a lawn',
    { packs: [{ ...product().packs[0]!, size: 2, unit: 'kg' }] },
    { amount: 50, unit: 'g' },
    ['strewings in a pack', 'a strewing', 'a week'],
  ],
  [
    'tablets',
    { packs: [{ ...piece[0]!, size: 10 }] },
    { amount: 2, unit: 'piece', timesPerUnit: 2 },
    ['doses in a pack', 'a dose', 'a week'],
  ],
] as const)('%s has its own words', (_, made, given, words) => {
  const all = heads(of(made as Partial<Product>, given));
  expect(words.filter((w) => !all.includes(w))).toEqual([]);
  expect(all.includes('a week')).toBe(words.includes('a week' as never));
});
it('a caption says what was counted', () => {
  expect(packCaption(of({ category: 'accessory', packs: piece }, { amount: 1, unit: 'piece' }))).toBe(
    'One tray’s set-ups, by the plan.',
  );
});
it('equals have no control to be a tenth of', () => {
  const p = plan({ treatments: ['A', 'B'] });
  expect(sayMargin(p)).toBe('10 % of the control');
  const peers = {
    ...p,
    peers: true as const,
    treatments: p.treatments.map((t) => ({ ...t, role: 'test' as const })),
  };
  expect(sayMargin(peers)).toBe('10 % of the mean of all');
  expect(sayMargin({ ...p, smallestDifference: null })).toBeNull();
});
it.each([
  [15.39998904, 'g', '15.4 g'],
  [12000, 'mL', '12 L'],
  [1500, 'mL', '1500 mL'],
  [2, 'piece', '2 pieces'],
  [1, 'piece', '1 piece'],
])('%s %s is said %s', (amount, unit, said) => expect(amountWords(amount, unit)).toBe(said));
it('one degree of freedom is one', () => {
  expect([sayDf(1), sayDf(2)]).toEqual([
    '1 value over to judge chance by',
    '2 values over to judge chance by',
  ]);
});
