import { z } from 'zod';
import { type Result, ok } from '~core/model/result';
import { numberIn, readNumber } from '~core/quantity/number';
import { readQuantity } from '~core/quantity/quantity';
import { type WeightUnit, fromGrams, toGrams, weightUnits } from '~core/quantity/amount';

/** A weight as the scale gave it. */
export const Weighed = z.object({
  grams: z.number(),
  steady: z.boolean(),
  instrument: z.string(),
  /** smallest step of the scale, g */
  stepG: z.number().nullable(),
});
export type Weighed = z.infer<typeof Weighed>;

/** What stands on the pad of the scale: figures in a unit, and the reading they came from. */
export const ScaleFigure = z.object({
  /** as the keys were pressed, or as the scale gave it, in `unit` */
  text: z.string(),
  unit: z.enum(weightUnits),
  /** null where it was typed */
  reading: Weighed.nullable(),
});
export type ScaleFigure = z.infer<typeof ScaleFigure>;

export const emptyScale: ScaleFigure = { text: '', unit: 'g', reading: null };

/** @example inUnit(28.3495, 'oz') // '1' */
const inUnit = (grams: number, unit: WeightUnit) => String(Number(fromGrams(grams, unit).toFixed(4)));

/** What it is in grams; null where nothing stands there. */
export const gramsOn = ({ text, unit }: ScaleFigure): number | null =>
  numberIn(text) === null ? null : Number(toGrams(numberIn(text)!, unit).toFixed(4));

/**
 * A weight as it was written down, in grams: with its unit, or a bare figure in the unit in hand.
 * @example readWeight('1 lb', 'g').ok // true
 */
export function readWeight(text: string, unit: WeightUnit): Result<number, string> {
  const bare = readNumber(text);
  return bare.ok ? ok(Number(toGrams(bare.value, unit).toFixed(4))) : readQuantity(text, 'mass');
}

/** Typed over what stood there. */
export const typed = (on: ScaleFigure, text: string): ScaleFigure => ({ ...on, text, reading: null });

/** Taken from the scale. */
export const withReading = (on: ScaleFigure, reading: Weighed): ScaleFigure => ({
  ...on,
  reading,
  text: inUnit(reading.grams, on.unit),
});

/** What the scale gave is the same weight in any unit; what was typed is as the person meant it. */
export const turnedTo = (on: ScaleFigure, unit: WeightUnit): ScaleFigure => ({
  ...on,
  unit,
  text: on.reading ? inUnit(on.reading.grams, unit) : on.text,
});
