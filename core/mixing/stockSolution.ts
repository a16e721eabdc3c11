import type { Product } from '../model/product';
import { type Result, err, ok } from '../model/result';
import { contentsOf } from './order';
import { type Rounded, DOSE_ERROR_LIMIT, roundToStep } from './rounding';

/** A product dissolved or diluted ahead, and what a batch then takes of it. */
export interface StockRecipe {
  /** of product, in `unit`, a whole number of the tool's steps */
  amount: number;
  /** g weighed; mL of a liquid that is thinned */
  unit: 'g' | 'mL';
  /** made up with water to this much, L */
  volumeL: number;
  /** what the batch takes, mL, and its error */
  take: Rounded;
  /** how many such batches the stock is enough for */
  batches: number;
  /** why no more of it goes into a litre */
  bound: 'solubility' | 'unknownSolubility' | 'halfWater';
}

type StockError =
  | { tag: 'fallsOut' }
  | { tag: 'living' }
  | { tag: 'tooCoarse'; need: number; most: number; unit: 'g' | 'mL' }
  | { tag: 'noVolume' };

/** Says in one plain line why there is no stock solution. */
export function describeStockError(e: StockError): string {
  const figure = (x: number) => Number(x.toPrecision(3));
  switch (e.tag) {
    case 'fallsOut':
      return 'No stock solution of it: it has calcium and phosphate or sulfate in one, which fall out of a strong solution.';
    case 'living':
      return 'No stock solution of it: what lives in it doesn’t keep once it is wet.';
    case 'tooCoarse':
      return e.unit === 'g'
        ? `A stock would need ${figure(e.need)} g to be weighed well, more than ${figure(e.most)} g dissolve in the largest bottle.`
        : `A dilution would need ${figure(e.need)} mL to be measured well, more than goes into the largest bottle.`;
    case 'noVolume':
      return 'Millilitres measured in such coarse steps give no better dose: take a finer syringe.';
  }
}

/** Where solubility isn't known no more than this is dissolved in a litre (common practice). */
export const CAUTIOUS_G_PER_L = 100;
/** Of a known solubility half is used, so that nothing falls out in a cool room (common practice). */
const SOLUBLE_SHARE = 0.5;
/** A liquid is thinned with at least as much water (common practice). */
const LIQUID_PER_L = 500;
/** Bottles a stock is made in, L. */
const bottlesL = [0.1, 0.25, 0.5, 1, 2];

/** 1, 2 or 5 times a power of ten, the first that isn't less. */
function neatUp(x: number): number {
  const power = 10 ** Math.floor(Math.log10(x));
  const step = [1, 2, 2.5, 5, 10].find((s) => s * power >= x * (1 - 1e-9))!;
  return Number((step * power).toPrecision(6));
}

type Stocked = Pick<Product, 'form' | 'solubilityGPerL' | 'analysis' | 'character'>;

/** The most of a product in a litre of stock, g or mL, and what bounds it; or why there can be none. */
function mostPerLitre(product: Stocked): Result<{ most: number; bound: StockRecipe['bound'] }, StockError> {
  const c = contentsOf(product);
  if (c.living) return err({ tag: 'living' });
  if (product.form === 'liquid') return ok({ most: LIQUID_PER_L, bound: 'halfWater' });
  if (c.calcium && (c.phosphate || c.sulfate)) return err({ tag: 'fallsOut' });
  return product.solubilityGPerL === null
    ? ok({ most: CAUTIOUS_G_PER_L, bound: 'unknownSolubility' })
    : ok({ most: product.solubilityGPerL * SOLUBLE_SHARE, bound: 'solubility' });
}

/**
 * The smallest neat stock solution that brings a dose within the error limit: measured well because there is
 * more of it, dosed well because it is thin. A powder is dissolved, a liquid thinned.
 *
 * @param product whose contents and solubility bound it
 * @param unit what the product is measured in
 * @param wanted what the batch needs, in `unit`
 * @param step the step of the tool the product is measured with, in `unit`
 * @param liquidStepMl the step of the syringe or cylinder the stock is then measured with
 * @example stockSolution({ product: powder, unit: 'g', wanted: 2.4, step: 1, liquidStepMl: 1 })
 * // 25 g in 250 mL; the batch takes 24 mL
 */
export function stockSolution({
  product,
  unit,
  wanted,
  step,
  liquidStepMl,
  limitPercent = DOSE_ERROR_LIMIT,
}: {
  product: Stocked;
  unit: 'g' | 'mL';
  wanted: number;
  step: number;
  liquidStepMl: number;
  limitPercent?: number;
}): Result<StockRecipe, StockError> {
  const bounded = mostPerLitre(product);
  if (!bounded.ok) return bounded;
  const { most, bound } = bounded.value;
  // Half a step of the tool mustn't be more than the limit.
  const need = Math.max((step / 2) * (100 / limitPercent), wanted);
  const amount = roundToStep(Math.max(neatUp(need), step), step).measured;
  const fitting = bottlesL.filter((litres) => amount / litres <= most * (1 + 1e-9));
  if (fitting.length === 0) {
    return err({ tag: 'tooCoarse', need: amount, most: most * bottlesL[bottlesL.length - 1]!, unit });
  }
  for (const volumeL of fitting) {
    const take = roundToStep((1000 * wanted * volumeL) / amount, liquidStepMl);
    if (take.measured > 0 && take.measured <= volumeL * 1000 && Math.abs(take.errorPercent) <= limitPercent) {
      return ok({
        amount,
        unit,
        volumeL,
        take,
        batches: Math.floor((volumeL * 1000) / take.measured),
        bound,
      });
    }
  }
  return err({ tag: 'noVolume' });
}
