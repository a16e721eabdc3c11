import { amountOf } from '../mixing/density';
import { type TrialState, ofKind } from '../log/state';
import type { BodyOf } from '../log/entry';
import type { ProductId } from '../model/ids';
import type { AmountUnit } from '../model/product';
import type { Treatment } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { type Result, err, ok } from '../model/result';
import { type Money, inCurrency } from './money';
import type { CostError } from './treatmentCost';

/** What a unit of a treatment was really given, by the log. */
export interface GivenCost {
  perUnit: Money;
  /** batches and direct doses in the log */
  batches: number;
}

type Given = { productId: ProductId; packId: string | undefined; amount: number; unit: AmountUnit };

/** Share of a batch that was fed; all of it where its feeding wasn't written down or nothing was mixed with water. */
function shareFed(state: Pick<TrialState, 'byKind'>, { batch, volumeL }: BodyOf<'mix'>): number {
  const feeds = ofKind(state, 'feed').filter((f) => f.body.batch === batch && batch !== '');
  if (feeds.length === 0 || volumeL <= 0) return 1;
  const fed = feeds.reduce((sum, f) => sum + f.body.unitIds.length * f.body.volumeLPerUnit, 0);
  return Math.min(1, fed / volumeL);
}

/** Amounts of a mix as they came out of packs: a stock solution is what was dissolved in it. */
function fromPacks(state: Pick<TrialState, 'byKind'>, mix: BodyOf<'mix'>): Given[] {
  const stocks = ofKind(state, 'stock').map((s) => s.body);
  return mix.amounts.flatMap(({ productId, packId, amount, unit, fromStock }): Given[] => {
    if (fromStock === undefined) return [{ productId, packId, amount, unit }];
    const stock = stocks.find((s) => s.batch === fromStock);
    return stock
      ? [
          {
            productId,
            packId: stock.packId,
            amount: (amount / 1000 / stock.volumeL) * stock.amount,
            unit: stock.unit,
          },
        ]
      : [];
  });
}

/**
 * What one unit of a treatment got in products by the log: batches mixed, as far as they were fed, over all its
 * units. Prices are those of the plan's copies of the products.
 *
 * @returns null where the log has no batch with a product for it
 * @example givenCost(state, treatment) // 2 of 5 planned batches mixed: two fifths of the planned cost
 */
export function givenCost(
  state: Pick<TrialState, 'plan' | 'byKind'>,
  treatment: Treatment,
): Result<GivenCost, CostError> | null {
  const { plan } = state;
  const mixes = ofKind(state, 'mix')
    .map((m) => m.body)
    .filter((m) => m.treatmentId === treatment.id && m.amounts.length > 0);
  const units = planIndex(plan).unitsOf(treatment.id).length;
  if (mixes.length === 0 || units === 0) return null;
  let minor = 0;
  for (const mix of mixes) {
    const share = shareFed(state, mix);
    for (const given of fromPacks(state, mix)) {
      const product = planIndex(plan).product(given.productId);
      if (!product) return err({ tag: 'unknownProduct' });
      const pack = product.packs.find((p) => p.id === given.packId) ?? product.packs[0];
      if (!pack) return err({ tag: 'noPack', product: product.name });
      const inPack = amountOf(product, given.amount, given.unit, pack.unit);
      if (!inPack.ok) {
        return err({ tag: inPack.error.tag, product: product.name, pack: pack.unit, dose: given.unit });
      }
      const price = { minor: (pack.priceMinor * inPack.value) / pack.size, currency: pack.currency };
      const here = inCurrency(price, plan.currency, plan.mixing.exchange);
      if (!here) return err({ tag: 'currencies', currencies: [pack.currency, plan.currency] });
      minor += here.minor * share;
    }
  }
  return ok({ perUnit: { minor: minor / units, currency: plan.currency }, batches: mixes.length });
}
