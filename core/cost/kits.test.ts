// Plain arithmetic, line by line.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PackId, ProductId } from '../model/ids';
import type { Pack } from '../model/product';
import { plan, product, use } from '../testing/trial';
import { kitShares, kitUses, sayKit } from './kits';

describe('a kit’s price over its bottles', () => {
  it('by size, whatever the unit; whole cents that add up', () => {
    const L = { size: 1, unit: 'L' as const };
    expect(kitShares(4900, [L, L, { size: 500, unit: 'mL' }])).toEqual([1960, 1960, 980]);
    expect(kitShares(1000, [L, L, L])).toEqual([334, 333, 333]);
  });
  it('in equal shares where a powder stands beside a bottle', () => {
    expect(
      kitShares(3000, [
        { size: 1, unit: 'L' },
        { size: 250, unit: 'g' },
      ]),
    ).toEqual([1500, 1500]);
    expect(kitShares(3000, [])).toEqual([]);
  });
  it('always adds up', () => {
    const bottle = fc.record({
      size: fc.double({ min: 0.001, max: 1000, noNaN: true }),
      unit: fc.constantFrom('g', 'kg', 'mL', 'L', 'piece' as const),
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1e7 }),
        fc.array(bottle, { minLength: 1, maxLength: 8 }),
        (p, b) => {
          const shares = kitShares(p, b);
          expect(shares.reduce((s, x) => s + x, 0)).toBe(p);
          expect(shares.every((x) => Number.isInteger(x) && x >= 0)).toBe(true);
        },
      ),
    );
  });
});

describe('how far a kit goes', () => {
  const kit = { id: 'k', name: 'Prova', priceMinor: 4900 };
  const pack = (over: Partial<Pack>): Pack => ({
    id: 'p' as PackId,
    size: 1,
    unit: 'L',
    priceMinor: 1960,
    currency: 'EUR',
    boughtOn: null,
    count: 1,
    kit,
    ...over,
  });
  const bottle = (id: string, over: Partial<Pack> = {}) =>
    product({ id: id as ProductId, name: id, packs: [pack(over)] });
  const fed = (...uses: [id: string, mL: number][]) => ({
    ...plan().treatments[1]!,
    products: uses.map(([id, amount]) => use({ productId: id as ProductId, amount })),
  });
  const all = [bottle('Grow'), bottle('Micro'), bottle('Bloom', { size: 500, unit: 'mL', priceMinor: 980 })];
  it('until its first bottle is empty, and what is left then', () => {
    // 10 mL of 500 mL: 50 feeds; Grow gives 5 mL a feed: 250 of 1,000 mL are gone.
    const [k] = kitUses(fed(['Grow', 5], ['Bloom', 10]), all);
    expect(k).toMatchObject({ feeds: 50, emptyFirst: 'Bloom', perFeed: { minor: 98 } });
    expect(k!.left).toEqual([{ product: 'Grow', share: 0.75 }]);
    expect(sayKit('A', k!)).toBe(
      'A, from the kit Prova (€49.00): Bloom is empty first, after 50 feeds; left then: 75 % of Grow. €0.980 a feed if what is left is thrown away.',
    );
  });
  it('one bottle of it alone lasts; nothing is left where all are empty together', () => {
    const alone = kitUses(fed(['Grow', 5]), all)[0]!;
    expect(sayKit('A', alone)).toMatch(/Grow lasts 200 feeds\. /);
    const even = kitUses(fed(['Grow', 20], ['Bloom', 10]), all)[0]!;
    expect(sayKit('A', even)).not.toContain('left then');
  });
  it('nothing is said of packs that are no kit', () => {
    expect(kitUses(fed(['feed', 5]), [product()])).toEqual([]);
  });
});
