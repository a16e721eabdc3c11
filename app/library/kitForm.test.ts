import { describe, expect, it } from 'vitest';
import type { ProductId } from '~core/model/ids';
import { blankProduct } from '~core/model/blankProduct';
import { fieldErrors } from '../form/schemaFields';
import { KitForm, withKit } from './kitForm';

const typed = {
  name: 'Trio',
  price: '49,00',
  currency: 'eur',
  ...{ boughtOn: '', shop: '' as const, country: '' },
  bottles: [
    { productId: 'a', size: '1', unit: 'L' as const },
    { productId: 'b', size: '500', unit: 'mL' as const },
  ],
};
const shelf = ['a', 'b', 'c'].map((id) => ({ ...blankProduct(id as ProductId, id), id: id as ProductId }));

describe('a kit of several bottles', () => {
  it('puts a bottle with its share in front of each product’s packs', () => {
    const made = withKit(shelf, KitForm.parse(typed));
    expect(made.map((p) => [p.id, p.packs[0]!.priceMinor, p.packs[0]!.currency])).toEqual([
      ['a', 3267, 'EUR'],
      ['b', 1633, 'EUR'],
    ]);
    expect(new Set(made.map((p) => p.packs[0]!.kit!.id)).size).toBe(1);
  });
  it('says at the field what is missing', () => {
    const wrong = KitForm.safeParse({
      ...typed,
      price: 'dear',
      bottles: [typed.bottles[0], { ...typed.bottles[0], size: '0' }],
    });
    expect(Object.keys(fieldErrors(wrong.error!)).sort()).toEqual(['bottles.1.size', 'price']);
    const twice = KitForm.safeParse({ ...typed, bottles: [typed.bottles[0], typed.bottles[0]] });
    expect(fieldErrors(twice.error!)).toMatchObject({ 'bottles.1.productId': 'It stands above already.' });
    expect(KitForm.safeParse({ ...typed, bottles: [typed.bottles[0]] }).success).toBe(false);
  });
});
