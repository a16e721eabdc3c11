import type { z } from 'zod';
import { parseDecimal } from '~core/formats/csv';
import { aroundProduct, readRate } from '~core/mixing/resolveRate';
import type { AmountUnit, Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import type { MeasureSystem } from '~core/quantity/measure';
import { describeRateError, parseRate } from '~core/quantity/rate';

/** What is wrong with a dose by its words alone; measures of its own are known only with the product. */
export function checkDose(text: string, ctx: z.RefinementCtx): void {
  const figure = parseDecimal(text);
  const say = (message: string) => ctx.addIssue({ code: 'custom', message });
  if (figure !== null) {
    if (figure <= 0) say('More than nothing.');
    return;
  }
  const rate = parseRate(text);
  if (!rate.ok && rate.error.tag !== 'unknownUnit') say(describeRateError(rate.error));
}

export interface Dose {
  amount: number;
  unit: AmountUnit;
  rateText: string;
}

interface DoseInput {
  amount: string;
  unit: AmountUnit;
  solutionLPerUnit: number | null;
}

/**
 * A dose as typed, worked out: a figure with its unit, or a rate in the plan's spoons and gallons.
 * @param areaCm2 ground of a unit, for rates by area
 * @returns the dose per litre (where a solution is given) or per unit; or what is wrong, and at which field
 */
export function resolveDose(
  { amount: text, unit, solutionLPerUnit }: DoseInput,
  product: Product | undefined,
  measures: MeasureSystem,
  areaCm2: number | null,
): Result<Dose, { field: 'amount' | 'solutionLPerUnit'; message: string }> {
  const figure = parseDecimal(text);
  if (figure !== null) return ok({ amount: figure, unit, rateText: '' });
  const wrong = (message: string, field: 'amount' | 'solutionLPerUnit' = 'amount') => err({ field, message });
  if (!product) return wrong('Choose the product first.');
  const unitGround = areaCm2 === null ? null : areaCm2 / 10_000;
  const rate = readRate(
    text,
    aroundProduct(product, measures, { tankL: solutionLPerUnit, areaM2: unitGround }),
  );
  if (!rate.ok) return wrong(rate.error);
  const { low, high, unit: measured, per } = rate.value;
  if (low !== high) return wrong('A dose is one figure: write which of the range it is.');
  if (per === 'L' && solutionLPerUnit === null) {
    return wrong('How much solution does each unit get? The dose is per litre.', 'solutionLPerUnit');
  }
  if (per === 'unit' && solutionLPerUnit !== null) {
    return wrong('The dose goes to each unit as it is: leave the solution empty, or write a dose per litre.');
  }
  return ok({ amount: Number(low.toPrecision(12)), unit: measured, rateText: text });
}
