import type { Plan } from '../model/plan';
import { type Product, TILE_COLOURS } from '../model/product';
import { planIndex } from './planIndex';

const known = new WeakMap<Plan, readonly number[]>();

/**
 * The tile of each treatment, in the plan's order. A product wears the tile it has in the library in every trial where
 * it is free; whoever has none takes the one of its place, or the first that is left. Under a blind trial tiles go by
 * the codes alone, also when they are open: what stands on the labels stays true.
 *
 * @returns numbers of tiles, each of a colour of its own as long as there are colours
 * @example tilesOf(plan) // [0, 5, 2]: the second’s product has the sixth tile
 */
export function tilesOf(plan: Plan): readonly number[] {
  let tiles = known.get(plan);
  if (!tiles) known.set(plan, (tiles = dealt(plan)));
  return tiles;
}

function dealt(plan: Plan): readonly number[] {
  const byPlace = plan.treatments.map((_, i) => i);
  if (plan.blinding !== 'open' || byPlace.length > TILE_COLOURS) return byPlace;
  const taken = new Set<number>();
  const take = (tile: number | undefined): number | null => {
    if (tile === undefined || taken.has(tile % TILE_COLOURS)) return null;
    taken.add(tile % TILE_COLOURS);
    return tile;
  };
  const own = plan.treatments.map((t) =>
    take(t.products.map((u) => planIndex(plan).product(u.productId)?.tile).find((n) => n !== undefined)),
  );
  const ofPlace = own.map((tile, i) => tile ?? take(i));
  return ofPlace.map((tile, i) => tile ?? take(byPlace.find((n) => !taken.has(n))) ?? i);
}

/**
 * Products as the library keeps them: each with a tile of its own. One that was there keeps its tile; a new one keeps
 * what it brings where that is free, else gets the first that is. The first tile of all stays for who gets nothing.
 */
export function withTiles(products: readonly Product[], library: readonly Product[]): Product[] {
  const known = new Map(library.map((p) => [p.id, p.tile]));
  const taken = new Set(known.values());
  return products.map((p) => {
    const kept = known.get(p.id);
    const brought = p.tile !== undefined && !taken.has(p.tile) ? p.tile : undefined;
    let tile = kept ?? brought;
    if (tile === undefined) for (tile = 1; taken.has(tile);) tile += 1;
    taken.add(tile);
    return { ...p, tile };
  });
}
