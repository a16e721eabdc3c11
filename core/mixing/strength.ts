/** Estimated strength of a solution. */
export interface Strength {
  /** mS/cm (the same as dS/m) at 25 °C */
  ec: number;
  /** what the unknown nitrogen forms and unlisted ions can make of it */
  low: number;
  high: number;
  /** share of the unstated nitrogen that was taken as ammonium, 0 to 1; null where all is stated */
  ammoniumShare: number | null;
  /** a product without analysis is in it: the true strength is higher */
  incomplete: boolean;
}

/** The formula's own error, per cent, for ordinary nutrient solutions: common practice, no source. */
export const STRENGTH_ERROR_PERCENT = 10;

/** Named wherever an estimate is shown; written from memory of the paper. */
export const STRENGTH_FORMULA = 'EC ≈ 0.095 × Σ cations (meq/L) + 0.19, Sonneveld et al. 1999';

/**
 * Strength from charges.
 *
 * Source: Sonneveld et al. 1999, for nutrient solutions at 25 °C (from memory). Below 1 meq/L the constant
 * would claim strength for pure water; there a straight line to zero is used (our own).
 *
 * @param meqPerL sum of cations, meq/L, which equals the sum of anions
 * @returns mS/cm
 * @example sonneveldEc(20) // 2.09
 */
export function sonneveldEc(meqPerL: number): number {
  return meqPerL < 1 ? meqPerL * 0.285 : 0.095 * meqPerL + 0.19;
}

/** The charges that give a strength: the formula turned round. @param ec mS/cm @returns meq/L */
export const meqAt = (ec: number): number => (ec < 0.285 ? ec / 0.285 : (ec - 0.19) / 0.095);

/**
 * Estimates strength where a label doesn't say all. Nitrogen of unstated form is split into ammonium and
 * nitrate so that charges balance (a solution has no charge); of what still doesn't balance the larger side
 * is taken, since the smaller one misses ions that labels don't list (chloride, for one).
 *
 * @param ions meq/L and, of unstated nitrogen, mmol/L
 * @param waterMeqPerL charges the source water brings by itself, meq/L (`meqAt` of its measured strength): what is
 * dissolved in it adds to them, and the formula's constant counts once
 * @param incomplete whether a product without analysis is in it
 */
export function strengthOf(
  ions: { cations: number; anions: number; unstatedNitrogen: number },
  waterMeqPerL = 0,
  incomplete = false,
): Strength {
  const { cations, anions, unstatedNitrogen: n } = ions;
  const ammoniumShare = n > 0 ? Math.min(1, Math.max(0, (anions + n - cations) / (2 * n))) : null;
  const ammonium = n * (ammoniumShare ?? 0);
  const balanced = Math.max(cations + ammonium, anions + n - ammonium);
  const least = Math.min(cations, anions);
  const most = Math.max(cations + n, anions + n);
  const at = (meq: number) => sonneveldEc(waterMeqPerL + meq);
  return {
    ec: at(balanced),
    low: at(n > 0 ? least : balanced),
    high: at(n > 0 ? most : balanced),
    ammoniumShare,
    incomplete,
  };
}

/** Scales that meters show “ppm” on: so many ppm for 1 mS/cm. */
export const ppmScales = [500, 640, 700] as const;
type PpmScale = (typeof ppmScales)[number];

/**
 * What a meter with a ppm scale shows.
 * @param ec mS/cm
 * @example ppmOf(2, 500) // 1000
 */
export const ppmOf = (ec: number, scale: PpmScale): number => ec * scale;

/** Strength from a meter's ppm. @returns mS/cm @example ecFromPpm(1000, 500) // 2 */
export const ecFromPpm = (ppm: number, scale: PpmScale): number => ppm / scale;
