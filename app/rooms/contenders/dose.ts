import type { z } from 'zod';
import { numberIn } from '~core/quantity/number';
import { aroundProduct, readRate } from '~core/mixing/resolveRate';
import type { Conditions } from '~core/model/plan';
import type { AmountUnit, Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { type MeasureSystem, usMeasures } from '~core/quantity/units';
import { describeRateError, parseRate } from '~core/quantity/rate';
import { parseVolumePerUnit } from '~core/quantity/volume';

/** What is wrong with a dose by its words alone; measures of its own are known only with the product. */
export function checkDose(text: string, ctx: z.RefinementCtx): void {
  const figure = numberIn(text);
  const say = (message: string) => ctx.addIssue({ code: 'custom', message });
  if (figure !== null) {
    if (figure <= 0) say('More than nothing.');
    return;
  }
  const rate = parseRate(text);
  if (!rate.ok && rate.error.tag !== 'unknownUnit') say(describeRateError(rate.error));
}

/** What is wrong with a volume by its words alone. */
export function checkSolution(text: string, ctx: z.RefinementCtx): void {
  if (text === '') return;
  const read = parseVolumePerUnit(text, usMeasures, 1);
  if (!read.ok) ctx.addIssue({ code: 'custom', message: read.error });
}

export interface Dose {
  amount: number;
  unit: AmountUnit;
  rateText: string;
  /** solution for each unit and time, L; null for a dose given as it is */
  solutionLPerUnit: number | null;
}

interface DoseInput {
  amount: string;
  unit: AmountUnit;
  /** litres, or a volume such as 1 gal or 2 L/m²; empty for none */
  solutionLPerUnit: string;
  /** left out: in the day's water, or as it is */
  way?: GivenAs;
}

/** How a dose is given, as it is chosen. */
export const givenAs = ['water', 'after', 'spray', 'dry', 'medium'] as const;
export type GivenAs = (typeof givenAs)[number];

/** Ways in which a dose has water of its own. */
export const inWater = (way: GivenAs): boolean => way !== 'dry' && way !== 'medium';

/** What is wrong with a dose, and at which of its fields. */
export interface DoseError {
  field: 'amount' | 'solutionLPerUnit';
  message: string;
}

/** What of a unit a rate may be for. */
export interface UnitShape {
  noun: string;
  areaCm2: number | null;
  plants: number | null;
  /** medium in it, L */
  mediumL: number | null;
}

/** What a plan says of a unit. */
export const shapeOfUnit = (
  c: Pick<Conditions, 'areaPerUnitCm2' | 'plantsPerUnit' | 'containerVolumeL'>,
  noun: string,
): UnitShape => ({
  noun,
  areaCm2: c.areaPerUnitCm2,
  plants: c.plantsPerUnit,
  mediumL: c.containerVolumeL,
});

/**
 * A dose as typed, worked out: a figure with its unit, or a rate in the plan's spoons and gallons.
 *
 * @param unit its ground and plants, for rates by area and by the plant
 * @returns the dose per litre (where a solution is given) or per unit; or what is wrong, and at which field
 */
export function resolveDose(
  { amount: text, unit, solutionLPerUnit: typed, way = 'water' }: DoseInput,
  product: Product | undefined,
  measures: MeasureSystem,
  { areaCm2, plants, noun, mediumL }: UnitShape,
): Result<Dose, DoseError> {
  const wrong = (message: string, field: DoseError['field'] = 'amount') => err({ field, message });
  const solutionLPerUnit = inWater(way) ? typed : '';
  const areaM2 = areaCm2 === null ? null : areaCm2 / 10_000;
  const read = solutionLPerUnit.trim() === '' ? null : parseVolumePerUnit(solutionLPerUnit, measures, areaM2);
  if (read && !read.ok) return wrong(read.error, 'solutionLPerUnit');
  const litres = read ? Number(read.value.toPrecision(6)) : null;
  const figure = numberIn(text);
  if (figure !== null) return ok({ amount: figure, unit, rateText: '', solutionLPerUnit: litres });
  if (!product) return wrong('Choose the product first.');
  const rate = readRate(
    text,
    aroundProduct(product, measures, { tankL: litres, areaM2, unitNoun: noun, plantsPerUnit: plants }),
  );
  if (!rate.ok) return wrong(rate.error);
  const { low, high, unit: measured, per } = rate.value;
  if (low !== high) return wrong('A dose is one figure: write which of the range it is.');
  if (per === 'L' && way === 'medium') {
    return mediumL === null
      ? wrong(`How much medium is in a ${noun}? The dose is by the litre of it.`)
      : ok({
          amount: Number((low * mediumL).toPrecision(12)),
          unit: measured,
          rateText: text,
          solutionLPerUnit: null,
        });
  }
  if (per === 'L' && litres === null) {
    if (way === 'dry') return wrong('By the litre: choose in which water it is given.');
    return wrong('How much solution does each unit get? The dose is per litre.', 'solutionLPerUnit');
  }
  if (per === 'unit' && litres !== null) {
    return wrong('The dose goes to each unit as it is: leave the solution empty, or write a dose per litre.');
  }
  return ok({
    amount: Number(low.toPrecision(12)),
    unit: measured,
    rateText: text,
    solutionLPerUnit: litres,
  });
}
