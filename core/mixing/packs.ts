import type { BodyOf } from '../log/entry';
import type { PackId, ProductId } from '../model/ids';
import type { Pack, Product } from '../model/product';
import { amountOf } from './density';
import { type TrialState, ofKind } from '../log/state';

/** What is left of one pack (or of several bought alike). Amounts in the pack's own unit. */
export interface PackLeft {
  product: Product;
  pack: Pack;
  bought: number;
  taken: number;
  /** never below 0 */
  left: number;
  /** more was taken than was bought: another pack isn't entered yet */
  overdrawn: boolean;
}

/** What a log says by kind of line. */
type LoggedKinds = Pick<TrialState, 'byKind'>;

/** An amount that was taken out of a pack. */
export type Taking = { productId: ProductId; packId: PackId | undefined; amount: number; unit: Pack['unit'] };

/** Everything of a trial that came out of packs: mixes, but what they took from a stock solution, and stock solutions. */
export function takings(log: LoggedKinds): Taking[] {
  const mixed = ofKind(log, 'mix').flatMap(({ body }) =>
    body.amounts
      .filter((a) => a.fromStock === undefined)
      .map((a) => ({ productId: a.productId, packId: a.packId, amount: a.amount, unit: a.unit })),
  );
  const stocks = ofKind(log, 'stock').map(({ body }) => body);
  return [...mixed, ...stocks.map((s) => ({ ...s, packId: s.packId }))];
}

/**
 * Stock from the log: what each pack still holds.
 *
 * @param products with their packs
 * @param all takings of all trials that draw on them
 * @example packsLeft([feed], takings(state))[0].left // 0.987 kg of 1 kg
 */
export function packsLeft(products: readonly Product[], all: readonly Taking[]): PackLeft[] {
  return products.flatMap((product) =>
    product.packs.map((pack, i) => {
      const own = all.filter(
        (t) => t.productId === product.id && (t.packId === pack.id || (!knows(product, t.packId) && i === 0)),
      );
      const ownTotal = own.reduce((sum, t) => {
        const inPack = amountOf(product, t.amount, t.unit, pack.unit);
        return sum + (inPack.ok ? inPack.value : 0);
      }, 0);
      const bought = pack.size * pack.count;
      return {
        product,
        pack,
        bought,
        taken: ownTotal,
        left: Math.max(0, bought - ownTotal),
        overdrawn: ownTotal > bought * (1 + 1e-9),
      };
    }),
  );
}

const knows = (product: Product, packId: PackId | undefined) => product.packs.some((p) => p.id === packId);

/** A stock solution that was made, and what is left of it. */
export interface StockLeft {
  batch: string;
  productId: ProductId;
  body: BodyOf<'stock'>;
  at: string;
  takenMl: number;
  leftMl: number;
}

/** Stock solutions of a trial, newest first. */
export function stocksLeft(log: LoggedKinds): StockLeft[] {
  const takenByPack = new Map<string, number>();
  for (const { body } of ofKind(log, 'mix')) {
    for (const a of body.amounts) {
      if (a.fromStock !== undefined)
        takenByPack.set(a.fromStock, (takenByPack.get(a.fromStock) ?? 0) + a.amount);
    }
  }
  return ofKind(log, 'stock')
    .map(({ body, at }) => {
      const takenMl = takenByPack.get(body.batch) ?? 0;
      return {
        batch: body.batch,
        productId: body.productId,
        body,
        at,
        takenMl,
        leftMl: Math.max(0, body.volumeL * 1000 - takenMl),
      };
    })
    .reverse();
}
