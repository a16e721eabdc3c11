import { amountOf } from '../mixing/density';
import { feedsOf } from '../mixing/mixesInLog';
import { type TrialState, ofKind } from '../log/state';
import type { BodyOf } from '../log/entry';
import type { ProductId, UnitId } from '../model/ids';
import type { AmountUnit } from '../model/product';
import type { Treatment } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { type Result, err, ok } from '../model/result';
import { type Money, inCurrency } from '../quantity/money';
import { type CostError, notInPacks } from './treatmentCost';

/** What a unit of a treatment was really given, by the log. */
export interface GivenCost {
  perUnit: Money;
  /** the same with all of every batch, whatever of it was fed */
  wholePerUnit: Money;
  /** batches and direct doses in the log */
  batches: number;
  /**
   * what each unit got, minor units, by the feedings in the log; null where a batch has none, so that nobody knows
   * which unit got how much of it
   */
  byUnit: Map<UnitId, number> | null;
}

type Given = { productId: ProductId; packId: string | undefined; amount: number; unit: AmountUnit };

/**
 * Litres of a batch that each unit was fed; null where its feeding wasn't written down or nothing was mixed with water.
 * More than was mixed is scaled down to it: a batch isn't used up twice.
 */
function fedOf(
  state: Pick<TrialState, 'byKind'>,
  { batch, volumeL }: BodyOf<'mix'>,
): Map<UnitId, number> | null {
  const feeds = feedsOf(state, { batch });
  if (feeds.length === 0 || volumeL <= 0) return null;
  const fed = new Map<UnitId, number>();
  for (const { body } of feeds)
    for (const id of body.unitIds) fed.set(id, (fed.get(id) ?? 0) + body.volumeLPerUnit);
  const total = [...fed.values()].reduce((s, v) => s + v, 0);
  const scale = total > volumeL ? volumeL / total : 1;
  return new Map([...fed].map(([id, litres]) => [id, litres * scale]));
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
  let all = 0;
  let byUnit: Map<UnitId, number> | null = new Map();
  for (const mix of mixes) {
    const fed = fedOf(state, mix);
    const litres = fed === null ? 0 : [...fed.values()].reduce((s, v) => s + v, 0);
    let whole = 0;
    for (const given of fromPacks(state, mix)) {
      const product = planIndex(plan).product(given.productId);
      if (!product) return err({ tag: 'unknownProduct' });
      const pack = product.packs.find((p) => p.id === given.packId) ?? product.packs[0];
      if (!pack) return err({ tag: 'noPack', product: product.name });
      const inPack = amountOf(product, given.amount, given.unit, pack.unit);
      if (!inPack.ok) {
        return err(notInPacks(inPack.error, product, pack.unit, given.unit));
      }
      const price = { minor: (pack.priceMinor * inPack.value) / pack.size, currency: pack.currency };
      const here = inCurrency(price, plan.currency, plan.mixing.exchange);
      if (!here) return err({ tag: 'currencies', currencies: [pack.currency, plan.currency] });
      whole += here.minor;
    }
    all += whole;
    minor += fed === null ? whole : whole * (litres / mix.volumeL);
    if (fed === null) byUnit = null;
    for (const [id, of] of fed ?? []) byUnit?.set(id, (byUnit.get(id) ?? 0) + (whole * of) / mix.volumeL);
  }
  const { currency } = plan;
  return ok({
    perUnit: { minor: minor / units, currency },
    wholePerUnit: { minor: all / units, currency },
    batches: mixes.length,
    byUnit,
  });
}
