import { type Plan, type ProductUse, type Treatment } from '../model/plan';
import type { Product } from '../model/product';
import { convertAmount, dimensionOf } from '../quantity/amount';

/**
 * Nitrogen that one dose of a product carries.
 *
 * @returns g of N, or null when the label analysis (or, for a volume by weight, the density) isn't known
 */
export function nitrogenPerDose(use: Pick<ProductUse, 'amount' | 'unit'>, product: Product): number | null {
  const { analysis } = product;
  if (!analysis) return null;
  const share = analysis.nPercent / 100;
  const dimension = dimensionOf(use.unit);
  if (dimension === 'count') return null;
  // Weight in volume is grams in 100 mL: a volume in mL counts as if it weighed as many grams.
  const wanted = analysis.basis === 'w/v' ? 'mL' : 'g';
  const amount = convertAmount(use.amount, use.unit, wanted, product.densityKgPerL);
  return amount.ok ? amount.value * share : null;
}

/** How often, and into how many litres, a dose goes to one unit over the whole trial. */
export const dosesPerUnit = (use: ProductUse): number => use.timesPerUnit * (use.solutionLPerUnit ?? 1);

/**
 * Nitrogen one unit of a treatment gets over the whole trial.
 * @returns g of N; 0 for a treatment without products; null when one of them can't be worked out
 */
export function nitrogenPerUnit(treatment: Treatment, plan: Pick<Plan, 'products'>): number | null {
  let total = 0;
  for (const use of treatment.products) {
    const product = plan.products.find((p) => p.id === use.productId);
    const dose = product ? nitrogenPerDose(use, product) : null;
    if (dose === null) return null;
    total += dose * dosesPerUnit(use);
  }
  return total;
}
