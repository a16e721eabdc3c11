import type { AmountUnit } from '../model/product';
import { type Result, err, ok } from '../model/result';
import { type Dimension, measureWorth, usMeasures } from './units';

/** What one of each unit is in grams, millilitres or pieces; gallons and fluid ounces are US ones. */
const worthOf = (unit: AmountUnit) => measureWorth({ unit, system: null }, usMeasures);

export type AmountError = { tag: 'needsDensity' } | { tag: 'incomparable'; from: Dimension; to: Dimension };

/** mass, volume (US fluid ounce and gallon) or count */
export const dimensionOf = (unit: AmountUnit): Dimension => worthOf(unit).dimension;

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
  const [a, b] = [worthOf(from), worthOf(to)];
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
export const toGrams = (weight: number, unit: WeightUnit): number => weight * worthOf(unit).base;

/** A weight in grams as so many of another unit. */
export const fromGrams = (grams: number, unit: WeightUnit): number => grams / worthOf(unit).base;
