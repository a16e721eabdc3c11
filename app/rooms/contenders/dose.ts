import type { z } from 'zod';
import { numberIn } from '~core/quantity/number';
import { aroundProduct, readRate } from '~core/mixing/resolveRate';
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
}

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
}

/**
 * A dose as typed, worked out: a figure with its unit, or a rate in the plan's spoons and gallons.
 *
 * @param unit its ground and plants, for rates by area and by the plant
 * @returns the dose per litre (where a solution is given) or per unit; or what is wrong, and at which field
 */
export function resolveDose(
  { amount: text, unit, solutionLPerUnit }: DoseInput,
  product: Product | undefined,
  measures: MeasureSystem,
  { areaCm2, plants, noun }: UnitShape,
): Result<Dose, DoseError> {
  const wrong = (message: string, field: DoseError['field'] = 'amount') => err({ field, message });
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
  if (per === 'L' && litres === null) {
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
