import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Plan } from '../model/plan';
import type { Product } from '../model/product';
import { plan, product, use } from '../testing/trial';
import { tilesOf, withTiles } from './tiles';

/** A plan whose contenders get products with these tiles; null: nothing given, undefined: a product without one. */
function worn(tiles: readonly (number | null | undefined)[], over: Partial<Plan> = {}): Plan {
  const p = plan({ treatments: tiles.map((_, i) => `T${i}`) });
  return {
    ...p,
    treatments: p.treatments.map((t, i) => ({
      ...t,
      products: tiles[i] === null ? [] : [use({ productId: `p${i}` as Product['id'] })],
    })),
    products: tiles.flatMap((tile, i) =>
      tile === null ? [] : [product({ id: `p${i}` as Product['id'], ...(tile !== undefined && { tile }) })],
    ),
    ...over,
  };
}

describe('the tiles of a trial', () => {
  it('a product wears its own; who has none takes that of its place, or the first left', () => {
    expect(tilesOf(worn([null, 5, 2]))).toEqual([0, 5, 2]);
    expect(tilesOf(worn([null, 0, undefined]))).toEqual([1, 0, 2]);
    expect(tilesOf(worn([null, undefined, undefined]))).toEqual([0, 1, 2]);
  });
  it('two of one colour are never in a trial: the second stands back', () => {
    expect(tilesOf(worn([3, 3, null]))).toEqual([3, 1, 2]);
    expect(tilesOf(worn([3, 11, null]))).toEqual([3, 1, 2]);
  });
  it('under codes tiles go by the codes, open or not', () => {
    expect(tilesOf(worn([null, 5, 2], { blinding: 'scorer' }))).toEqual([0, 1, 2]);
  });
  it('every tile and every colour is one contender’s, as long as there are colours', () => {
    const tile = fc.oneof(fc.constant(null), fc.constant(undefined), fc.integer({ min: 0, max: 40 }));
    fc.assert(
      fc.property(fc.array(tile, { minLength: 2, maxLength: 8 }), (tiles) => {
        const given = tilesOf(worn(tiles));
        expect(new Set(given.map((n) => n % 8)).size).toBe(tiles.length);
        tiles.forEach((own, i) => {
          const isFirst =
            own !== null &&
            own !== undefined &&
            !tiles.slice(0, i).some((o) => o != null && o % 8 === own % 8);
          if (isFirst) expect(given[i]).toBe(own);
        });
      }),
    );
  });
});

describe('the tiles of a library', () => {
  const named = (id: string, tile?: number) =>
    product({ id: id as Product['id'], ...(tile !== undefined && { tile }) });
  it('a product keeps its tile whatever its form says, a new one gets the first that is free', () => {
    const library = [named('a', 1), named('b', 3)];
    expect(withTiles([named('b')], library)[0]!.tile).toBe(3);
    expect(withTiles([named('b', 9)], library)[0]!.tile).toBe(3);
    expect(withTiles([named('c'), named('d')], library).map((p) => p.tile)).toEqual([2, 4]);
  });
  it('what comes from elsewhere keeps its tile where that is free; a copy gets one of its own', () => {
    const library = [named('a', 1)];
    expect(withTiles([named('x', 7)], library)[0]!.tile).toBe(7);
    expect(withTiles([named('copy', 1)], library)[0]!.tile).toBe(2);
  });
});
