import { expect, it } from 'vitest';
import { plan, use } from '../testing/trial';
import { codesByProduct, productCodeKey, productCodesOf } from './productCodes';

const two = [
  use({ productId: 'x' as never }),
  use({ productId: 'y' as never }),
  use({ productId: 'x' as never }),
];
const p = plan({ treatments: ['Water', 'A', 'B'] });
const fed = { ...p, treatments: p.treatments.map((t) => (t.name === 'Water' ? t : { ...t, products: two })) };

it('a jar for every product of every treatment, under the letter of its code', () => {
  const key = { order: ['B', 'Water', 'A'] as never };
  expect(productCodesOf(fed, key).map((j) => [j.code, j.treatmentId, j.productId])).toEqual([
    ['A1', 'B', 'x'],
    ['A2', 'B', 'y'],
    ['C1', 'A', 'x'],
    ['C2', 'A', 'y'],
  ]);
  // the same product in two treatments is two jars: one would tell that they share it
  expect(codesByProduct(productCodesOf(fed, key)).get(productCodeKey('A', 'x'))).toBe('C1');
  expect(productCodesOf(fed, null).map((j) => j.code)).toEqual(['B1', 'B2', 'C1', 'C2']);
});
