import { amountOf, howDense } from '../mixing/density';
import type { AmountError } from '../quantity/amount';
import { type ExchangeRate, type ProductUse, type Treatment, doseAmount } from '../model/plan';
import type { AmountUnit, Pack, Product } from '../model/product';
import { type Result, err, ok } from '../model/result';
import { type Money, inCurrency } from '../quantity/money';

interface ProductCost {
  product: Product;
  pack: Pack;
  /** amount of one dose to one unit, in the pack's unit */
  dosePackUnits: number;
  /** exactly; what is left of a pack after whole doses counts here */
  dosesPerPack: number;
  /** whole doses a pack holds, rounded down: the one figure that is said */
  wholeDoses: number;
  perDose: Money;
  /** all doses one unit gets in the trial */
  perUnit: Money;
}

export interface TreatmentCost {
  products: ProductCost[];
  perUnit: Money;
}

export type CostError =
  | { tag: 'noProduct' }
  | { tag: 'unknownProduct' }
  | { tag: 'noPack'; product: string }
  /** `how`: what has to be done first */
  | { tag: 'needsDensity'; product: string; pack: string; dose: string; how: string }
  | { tag: 'incomparable'; product: string; pack: string; dose: string }
  | { tag: 'currencies'; currencies: string[] };

/** Why a dose can't be counted in packs. */
export function notInPacks(e: AmountError, product: Product, pack: AmountUnit, dose: AmountUnit): CostError {
  const what = { product: product.name, pack, dose };
  return e.tag === 'needsDensity' ? { ...what, tag: e.tag, how: howDense(product) } : { ...what, tag: e.tag };
}

/** Says in one plain line why something can't be priced, and what to do. */
export function describeCostError(e: CostError): string {
  switch (e.tag) {
    case 'noProduct':
      return 'No product and dose is written down for it.';
    case 'unknownProduct':
      return 'A product of this treatment isn’t in the library any more.';
    case 'noPack':
      return `${e.product} has no pack with a price; add one in the library.`;
    case 'needsDensity':
      return `${e.product} is dosed in ${e.dose} and sold in ${e.pack}: ${e.how}, in the library.`;
    case 'incomparable':
      return `${e.product} is dosed in ${e.dose} but sold in ${e.pack}; one of the two must change.`;
    case 'currencies':
      return `Prices are in ${e.currencies.join(' and ')}; they aren’t added up without a rate; give one in Mixing, under Set-up.`;
  }
}

/**
 * Price of one product as a treatment uses it.
 * @param use dose per unit (amount, or amount per litre × litres of solution) and how often
 */
export function productCost(use: ProductUse, product: Product): Result<ProductCost, CostError> {
  const pack = product.packs.find((p) => p.id === use.packId) ?? product.packs[0];
  if (!pack) return err({ tag: 'noPack', product: product.name });
  const dose = doseAmount(use) * (use.solutionLPerUnit ?? 1);
  const inPack = amountOf(product, dose, use.unit, pack.unit);
  if (!inPack.ok) {
    return err(notInPacks(inPack.error, product, pack.unit, use.unit));
  }
  const perDoseMinor = (pack.priceMinor * inPack.value) / pack.size;
  const { currency } = pack;
  return ok({
    product,
    pack,
    dosePackUnits: inPack.value,
    dosesPerPack: pack.size / inPack.value,
    // A hair under a whole dose is one: 2.4 mL of 240 mL is a hundredth.
    wholeDoses: Math.floor(pack.size / inPack.value + 1e-9),
    perDose: { minor: perDoseMinor, currency },
    perUnit: { minor: perDoseMinor * use.timesPerUnit, currency },
  });
}

/**
 * What one experimental unit of a treatment costs in products over the whole trial.
 * Without products an untreated control costs nothing, in the currency given; what any other one costs isn't known.
 *
 * @param exchange rates for packs bought in another currency; without one they aren't added up
 *
 * @example treatmentCost(water, products, 'EUR') // { ok: true, value: { products: [], perUnit: { minor: 0, … } } }
 */
export function treatmentCost(
  treatment: Treatment,
  products: readonly Product[],
  currency: string,
  exchange: readonly ExchangeRate[] = [],
): Result<TreatmentCost, CostError> {
  if (treatment.products.length === 0 && treatment.role !== 'untreated') return err({ tag: 'noProduct' });
  const lines: ProductCost[] = [];
  for (const use of treatment.products) {
    const product = products.find((p) => p.id === use.productId);
    if (!product) return err({ tag: 'unknownProduct' });
    const cost = productCost(use, product);
    if (!cost.ok) return cost;
    const [perDose, perUnit] = [cost.value.perDose, cost.value.perUnit].map((m) =>
      inCurrency(m, currency, exchange),
    );
    lines.push(perDose && perUnit ? { ...cost.value, perDose, perUnit } : cost.value);
  }
  const currencies = [...new Set(lines.map((l) => l.perUnit.currency))];
  if (currencies.length > 1) return err({ tag: 'currencies', currencies });
  return ok({
    products: lines,
    perUnit: {
      minor: lines.reduce((s, l) => s + l.perUnit.minor, 0),
      currency: currencies[0] ?? currency,
    },
  });
}

/** Cost of one gram (or leaf, or fruit) of result; null where nothing was harvested. */
export function costPerResult(perUnit: Money, meanResult: number): Money | null {
  return meanResult > 0 ? { minor: perUnit.minor / meanResult, currency: perUnit.currency } : null;
}

export interface ExtraCost {
  /** money for each extra gram over the control, at the estimated difference */
  perExtra: Money;
  /** at the ends of the difference's interval; worst is null when the interval reaches zero */
  best: Money | null;
  worst: Money | null;
}

/**
 * What one extra gram over the control cost.
 *
 * @param perUnit treatment's cost per unit; control's cost per unit in the same currency
 * @param gain treatment − control, result per unit; with its interval
 * @returns null when there was no gain, or the currencies differ
 */
export function costPerExtraResult(
  perUnit: Money,
  controlPerUnit: Money,
  gain: { estimate: number; low: number | null; high: number | null },
): ExtraCost | null {
  const comparable = perUnit.currency === controlPerUnit.currency || controlPerUnit.minor === 0;
  if (!comparable || !(gain.estimate > 0)) return null;
  const extra = perUnit.minor - controlPerUnit.minor;
  const at = (each: number | null): Money | null =>
    each !== null && each > 0 ? { minor: extra / each, currency: perUnit.currency } : null;
  return { perExtra: at(gain.estimate)!, best: at(gain.high), worst: at(gain.low) };
}
