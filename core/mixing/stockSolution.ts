import { type Result, err, ok } from '../model/result';
import { type Rounded, DOSE_ERROR_LIMIT, roundToStep } from './rounding';

/** A product dissolved ahead, and what a batch then takes of it. */
export interface StockRecipe {
  /** g of product, a whole number of the scale's steps */
  massG: number;
  /** made up with water to this much, L */
  volumeL: number;
  concentrationGPerL: number;
  /** what the batch takes, mL, and its error */
  take: Rounded;
  /** how many such batches the stock is enough for */
  batches: number;
  /** whether solubility was known, or the cautious figure was used */
  solubilityKnown: boolean;
}

export type StockError = { tag: 'tooCoarse'; needG: number; mostG: number } | { tag: 'noVolume' };

export function describeStockError(e: StockError): string {
  return e.tag === 'tooCoarse'
    ? `A stock would need ${Number(e.needG.toPrecision(3))} g to be weighed well, more than ${Number(e.mostG.toPrecision(3))} g dissolve in the largest bottle.`
    : 'Millilitres measured in such coarse steps give no better dose: take a finer syringe.';
}

/** Where solubility isn't known no more than this is dissolved in a litre (common practice). */
export const CAUTIOUS_G_PER_L = 100;
/** Of a known solubility half is used, so that nothing falls out in a cool room (common practice). */
const SOLUBLE_SHARE = 0.5;
/** Bottles a stock is made in, L. */
const bottlesL = [0.1, 0.25, 0.5, 1, 2];

/** 1, 2 or 5 times a power of ten, the first that isn't less. */
function neatUp(x: number): number {
  const power = 10 ** Math.floor(Math.log10(x));
  const step = [1, 2, 2.5, 5, 10].find((s) => s * power >= x * (1 - 1e-9))!;
  return Number((step * power).toPrecision(6));
}

/**
 * The smallest neat stock solution that brings a dose within the error limit: weighed well because there is
 * more of it, measured well because it is thin.
 *
 * @param wantedG what the batch needs, g
 * @param scaleStepG the scale's step
 * @param liquidStepMl the step of the syringe or cylinder it is then measured with
 * @param solubilityGPerL null when not known
 * @example stockSolution({ wantedG: 2.4, scaleStepG: 1, liquidStepMl: 1, solubilityGPerL: null })
 * // 25 g in 500 mL; the batch takes 48 mL
 */
export function stockSolution({
  wantedG,
  scaleStepG,
  liquidStepMl,
  solubilityGPerL,
  limitPercent = DOSE_ERROR_LIMIT,
}: {
  wantedG: number;
  scaleStepG: number;
  liquidStepMl: number;
  solubilityGPerL: number | null;
  limitPercent?: number;
}): Result<StockRecipe, StockError> {
  const mostGPerL = solubilityGPerL === null ? CAUTIOUS_G_PER_L : solubilityGPerL * SOLUBLE_SHARE;
  // Half a step of the scale mustn't be more than the limit.
  const needG = Math.max((scaleStepG / 2) * (100 / limitPercent), wantedG);
  const massG = roundToStep(Math.max(neatUp(needG), scaleStepG), scaleStepG).measured;
  const fitting = bottlesL.filter((litres) => massG / litres <= mostGPerL * (1 + 1e-9));
  if (fitting.length === 0) {
    return err({ tag: 'tooCoarse', needG: massG, mostG: mostGPerL * bottlesL[bottlesL.length - 1]! });
  }
  for (const volumeL of fitting) {
    const take = roundToStep((1000 * wantedG * volumeL) / massG, liquidStepMl);
    if (take.measured > 0 && take.measured <= volumeL * 1000 && Math.abs(take.errorPercent) <= limitPercent) {
      return ok({
        massG,
        volumeL,
        concentrationGPerL: massG / volumeL,
        take,
        batches: Math.floor((volumeL * 1000) / take.measured),
        solubilityKnown: solubilityGPerL !== null,
      });
    }
  }
  return err({ tag: 'noVolume' });
}
