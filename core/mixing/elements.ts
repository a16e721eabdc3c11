import { type ElementSymbol, elements, microElements } from '../model/element';
import type { AmountUnit, LabelAnalysis, Product } from '../model/product';
import { dimensionOf } from '../quantity/amount';
import { oxideFactor } from './chemistry';
import { amountOf } from './density';

/** Nitrogen by form; what the label doesn't split up is `unstated`. */
interface NitrogenForms {
  nitrate: number;
  ammonium: number;
  urea: number;
  unstated: number;
}

/** So much of each element; the unit is the user's (share, g, mg/L). */
export interface ElementAmounts {
  of: Record<ElementSymbol, number>;
  nitrogen: NitrogenForms;
}

const each = (value: (e: ElementSymbol) => number) =>
  Object.fromEntries(elements.map((e) => [e, value(e)])) as Record<ElementSymbol, number>;

export const noElements = (): ElementAmounts => ({
  of: each(() => 0),
  nitrogen: { nitrate: 0, ammonium: 0, urea: 0, unstated: 0 },
});

/** Both together. */
export const addElements = (x: ElementAmounts, y: ElementAmounts): ElementAmounts => ({
  of: each((e) => x.of[e] + y.of[e]),
  nitrogen: {
    nitrate: x.nitrogen.nitrate + y.nitrogen.nitrate,
    ammonium: x.nitrogen.ammonium + y.nitrogen.ammonium,
    urea: x.nitrogen.urea + y.nitrogen.urea,
    unstated: x.nitrogen.unstated + y.nitrogen.unstated,
  },
});

/** So many times as much. */
export const timesElements = (x: ElementAmounts, factor: number): ElementAmounts => ({
  of: each((e) => x.of[e] * factor),
  nitrogen: {
    nitrate: x.nitrogen.nitrate * factor,
    ammonium: x.nitrogen.ammonium * factor,
    urea: x.nitrogen.urea * factor,
    unstated: x.nitrogen.unstated * factor,
  },
});

/**
 * What a label says as shares of elements: P from P₂O₅, K from K₂O, the rest as it is.
 *
 * @returns g of each element in a gram (w/w) or a millilitre (w/v) of product
 * @example elementShares(12–6–18).of.P // 0.0262
 */
export function elementShares(a: LabelAnalysis): ElementAmounts {
  const share = (percent: number | null | undefined) => (percent ?? 0) / 100;
  const stated = share(a.nitratePercent) + share(a.ammoniumPercent) + share(a.ureaPercent);
  const main: Partial<Record<ElementSymbol, number>> = {
    // Forms that add up to more than the total are taken at their word.
    N: Math.max(share(a.nPercent), stated),
    P: share(a.p2o5Percent) * oxideFactor.P,
    K: share(a.k2oPercent) * oxideFactor.K,
    Ca: share(a.caPercent),
    Mg: share(a.mgPercent),
    S: share(a.sPercent),
  };
  for (const e of microElements) main[e] = share(a.micros[e]);
  return {
    of: each((e) => main[e] ?? 0),
    nitrogen: {
      nitrate: share(a.nitratePercent),
      ammonium: share(a.ammoniumPercent),
      urea: share(a.ureaPercent),
      unstated: Math.max(0, share(a.nPercent) - stated),
    },
  };
}

type Dosed = Pick<Product, 'analysis' | 'spoon' | 'densityKgPerL'>;

/**
 * Elements that an amount of a product carries.
 *
 * @returns g of each element; null when the label analysis isn't known, the amount is counted in pieces, or
 * a volume of a product analysed by weight (or the other way round) has no density
 * @example elementsIn(product10percentN, 4, 'g')?.of.N // 0.4
 */
export function elementsIn(product: Dosed, amount: number, unit: AmountUnit): ElementAmounts | null {
  if (!product.analysis || dimensionOf(unit) === 'count') return null;
  // Weight in volume is grams in 100 mL: a millilitre counts as a gram does in weight by weight.
  const wanted = amountOf(product, amount, unit, product.analysis.basis === 'w/v' ? 'mL' : 'g');
  return wanted.ok ? timesElements(elementShares(product.analysis), wanted.value) : null;
}
