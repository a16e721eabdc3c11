import type { AmountUnit } from '../model/product';
import { type Result, err, ok } from '../model/result';

export type Dimension = 'mass' | 'volume' | 'count';

/** What one of each unit is in grams, millilitres or pieces. Source: NIST SP 811, appendix B. */
const worth: Record<AmountUnit, { dimension: Dimension; base: number }> = {
  g: { dimension: 'mass', base: 1 },
  kg: { dimension: 'mass', base: 1000 },
  oz: { dimension: 'mass', base: 28.349523125 },
  lb: { dimension: 'mass', base: 453.59237 },
  mL: { dimension: 'volume', base: 1 },
  L: { dimension: 'volume', base: 1000 },
  'fl oz': { dimension: 'volume', base: 29.5735295625 },
  gal: { dimension: 'volume', base: 3785.411784 },
  piece: { dimension: 'count', base: 1 },
};

export type AmountError = { tag: 'needsDensity' } | { tag: 'incomparable'; from: Dimension; to: Dimension };

/** mass, volume (US fluid ounce and gallon) or count */
export const dimensionOf = (unit: AmountUnit): Dimension => worth[unit].dimension;

/**
 * Turns an amount into another unit; mass to volume and back through a density.
 *
 * @param amount in `from`
 * @param densityKgPerL mass of a litre, kg; null when unknown
 * @returns amount in `to`, or why it can't be done
 * @example convertAmount(1, 'lb', 'g', null) // { ok: true, value: 453.59237 }
 */
export function convertAmount(
  amount: number,
  from: AmountUnit,
  to: AmountUnit,
  densityKgPerL: number | null,
): Result<number, AmountError> {
  const [a, b] = [worth[from], worth[to]];
  const base = amount * a.base;
  if (a.dimension === b.dimension) return ok(base / b.base);
  if (a.dimension === 'count' || b.dimension === 'count') {
    return err({ tag: 'incomparable', from: a.dimension, to: b.dimension });
  }
  if (densityKgPerL === null) return err({ tag: 'needsDensity' });
  // 1 kg/L is 1 g/mL.
  return ok((a.dimension === 'mass' ? base / densityKgPerL : base * densityKgPerL) / b.base);
}

/** Weight units a scale or a person may use, in the order they are offered. */
export const weightUnits = ['g', 'kg', 'oz', 'lb'] as const;
export type WeightUnit = (typeof weightUnits)[number];

/** Grams of a weight. @example toGrams(1, 'oz') // 28.349523125 */
export const toGrams = (weight: number, unit: WeightUnit): number => weight * worth[unit].base;

/** A weight in grams as so many of another unit. */
export const fromGrams = (grams: number, unit: WeightUnit): number => grams / worth[unit].base;
