import { describe, expect, it } from 'vitest';
import { blankProduct } from '~core/model/blankProduct';
import type { ProductId } from '~core/model/ids';
import { copyOfTreatment, newTreatment, newUse, productMeant } from './newContender';

const [base, boost, boostPlus, drops] = ['Base', 'Boost', 'Boost Plus', 'Drops'].map((name) =>
  blankProduct(name as ProductId, name),
) as [ReturnType<typeof blankProduct>, ...ReturnType<typeof blankProduct>[]];
const library = [base, boost!, boostPlus!, drops!];
const contender = (name: string, ...products: (typeof base)[]) => ({ name, products: products.map(newUse) });

describe('the product that is probably meant', () => {
  it('is the one the contender is called after, and of two names the longer', () => {
    expect(productMeant(library, [contender('Base alone', base), contender('drops')], 1)).toBe(drops);
    expect(productMeant(library, [contender('Base + Boost Plus', base)], 0)).toBe(boostPlus);
  });

  it('isn’t one that the contender has, though it is called after it', () => {
    expect(productMeant(library, [contender('Base and another', base)], 0)).toBe(boost);
  });

  it('else is one that no contender has yet', () => {
    const contenders = [contender('A', base), contender('B', boost!, boostPlus!), contender('C')];
    expect(productMeant(library, contenders, 2)).toBe(drops);
  });

  it('else one that it hasn’t itself; the first where it has all; none where there is none', () => {
    expect(productMeant([base, boost!], [contender('A', base), contender('B', boost!)], 0)).toBe(boost);
    expect(productMeant([base], [contender('A', base)], 0)).toBe(base);
    expect(productMeant([], [contender('A')], 0)).toBeUndefined();
  });
});

describe('a copied contender', () => {
  it.each([
    ['untreated', 'test'],
    ['base', 'test'],
    ['test', 'test'],
    ['reference', 'reference'],
  ] as const)('of role %s is a %s', (role, becomes) => {
    const like = { ...newTreatment(role), name: 'Like', products: [newUse(base)] };
    const copy = copyOfTreatment(like);
    expect(copy).toMatchObject({ role: becomes, name: 'Like (copy)', products: like.products });
    expect(copy.id).not.toBe(like.id);
  });
});
