import type { ElementSymbol } from '../model/element';
import { type Plan, type ProductUse, type Treatment, doseAmount } from '../model/plan';
import type { Product } from '../model/product';
import { elementsIn } from './elements';

/**
 * How much of an element one dose of a product carries, at full strength.
 *
 * @returns g, or null when the label analysis (or, for a volume by weight, the density) isn't known
 */
export const elementPerDose = (
  use: Pick<ProductUse, 'amount' | 'unit'>,
  product: Product,
  element: ElementSymbol,
): number | null => elementsIn(product, use.amount, use.unit)?.of[element] ?? null;

/** How many doses, at full strength and into one litre, go to one unit over the whole trial. */
const dosesPerUnit = (use: ProductUse): number =>
  use.timesPerUnit * (use.solutionLPerUnit ?? 1) * (doseAmount(use) / use.amount);

/**
 * How much of an element one unit of a treatment gets over the whole trial.
 *
 * @returns g; 0 for a treatment without products; null when one of them can't be worked out
 * @example elementPerUnit(treatment, plan, 'N') // g of nitrogen
 */
export function elementPerUnit(
  treatment: Treatment,
  plan: Pick<Plan, 'products'>,
  element: ElementSymbol,
): number | null {
  let total = 0;
  for (const use of treatment.products) {
    const product = plan.products.find((p) => p.id === use.productId);
    const dose = product ? elementPerDose(use, product, element) : null;
    if (dose === null) return null;
    total += dose * dosesPerUnit(use);
  }
  return total;
}

/** Weeks a trial lasts by its rounds, at least one. */
const weeksOf = (plan: Pick<Plan, 'rounds'>): number => Math.max(7, ...plan.rounds.map((r) => r.day)) / 7;

/** An element one unit gets in a week, g, on average over the trial; null when it can't be worked out. */
export function elementPerWeek(
  treatment: Treatment,
  plan: Pick<Plan, 'products' | 'rounds'>,
  element: ElementSymbol,
): number | null {
  const total = elementPerUnit(treatment, plan, element);
  return total === null ? null : total / weeksOf(plan);
}
