import { describe, expect, it } from 'vitest';
import { blankProduct } from '~core/model/blankProduct';
import type { ProductId } from '~core/model/ids';
import {
  copyOfTreatment,
  newTreatment,
  newUse,
  nextUse,
  productMeant,
  productsNamed,
  rateNamed,
} from './newContender';

const [base, boost, boostPlus, drops] = ['Base', 'Boost', 'Boost Plus', 'Drops'].map((name) =>
  blankProduct(name as ProductId, name),
) as [ReturnType<typeof blankProduct>, ...ReturnType<typeof blankProduct>[]];
const library = [base, boost!, boostPlus!, drops!];
const contender = (name: string, ...products: (typeof base)[]) => ({
  ...{ name, role: 'test' as const, products: products.map(newUse) },
});

describe('the product that is probably meant', () => {
  it('is the one the contender is called after, and of two names the longer', () => {
    expect(productMeant(library, [contender('Base alone', base), contender('drops')], 1)).toBe(drops);
    expect(productMeant(library, [contender('Base + Boost Plus', base)], 0)).toBe(boostPlus);
  });

  it('else the base, then what most of the others have', () => {
    const onBase = [{ ...contender('Alone', base), role: 'base' as const }, contender('C')];
    expect(productMeant(library, onBase, 1)).toBe(base);
    const sharing = [contender('A', base, boost!), contender('B', base, drops!), contender('C')];
    expect(productMeant(library, sharing, 2)).toBe(base);
  });

  it('never a rival’s own, nor one that it has: that is asked', () => {
    expect(
      productMeant(library, [contender('A', base), contender('B', boost!), contender('C')], 2),
    ).toBeNull();
    expect(productMeant(library, [contender('A', base), contender('C')], 1)).toBeNull();
    expect(productMeant(library, [contender('Base and another', base)], 0)).toBeNull();
    expect(productMeant([], [contender('A')], 0)).toBeNull();
  });

  it('is the only one there is, until it is there', () => {
    expect(productMeant([base], [contender('A')], 0)).toBe(base);
    expect(productMeant([base], [contender('A', base)], 0)).toBeNull();
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

it.each([
  ['Uno + Due', ['Uno', 'Due']],
  ['Uno 50 %', ['Uno']],
  ['Foglia Uno', ['Foglia Uno']],
  ['foglia', ['Foglia']],
  ['Foglietta', []],
  ['', []],
])('“%s” is called after %j', (name, names) => {
  const shelf = ['Uno', 'Due', 'Foglia', 'Foglia Uno'].map((n) => blankProduct(n as ProductId, n));
  expect(productsNamed(shelf, name).map((p) => p.name)).toEqual(names);
});
it.each([
  ['Uno 50 %', '50'],
  ['Uno + Due 12.5 %', '12.5'],
  ['Uno', '100'],
  ['50 % peat', '100'],
])('“%s” gets %s %% of the rate', (name, rate) => expect(rateNamed(name)).toBe(rate));
it('a dose that is added is given as its own product is, whatever the one before it was', () => {
  const char = { ...newUse(base), way: 'medium' as const };
  expect(nextUse(boost!, char).way).toBe('water');
});
