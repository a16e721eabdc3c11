import type { AmountUnit, Product } from '../model/product';
import type { SourceWater } from '../model/mixingSetUp';
import { type ProductUse, doseAmount } from '../model/treatment';
import { dimensionOf } from '../quantity/amount';
import { amountOf } from './density';
import { type Rounded, roundToStep } from './rounding';
import { type Solution, solutionOf } from './solution';

/** The tools a batch is measured with. */
export interface Tools {
  /** smallest step of the scale, g; null: taken as exact */
  scaleStepG: number | null;
  /** smallest step of syringe or cylinder, mL; null: taken as exact */
  liquidStepMl: number | null;
}

/** One product of a batch: what is wanted and what the tool can do. */
export interface RecipeLine extends Rounded {
  product: Product;
  use: ProductUse;
  unit: 'g' | 'mL' | 'piece';
  /** the dose in `unit` per litre of solution (or per unit, for a direct dose) */
  perBase: number;
}

export interface Recipe {
  /** L of solution; for direct doses the number of units */
  size: number;
  lines: RecipeLine[];
  /** as planned and as it will be with the rounded amounts; null for direct doses */
  wanted: Solution | null;
  made: Solution | null;
}

/** What a product is measured in: liquids by volume, the rest by weight where a density allows it. */
function measuredIn(product: Product, unit: AmountUnit): 'g' | 'mL' | 'piece' {
  const dimension = dimensionOf(unit);
  if (dimension === 'count') return 'piece';
  if (dimension === 'mass') return 'g';
  if (product.form === 'liquid') return 'mL';
  return amountOf(product, 1, unit, 'g').ok ? 'g' : 'mL';
}

/**
 * A batch worked out: amounts for the volume, rounded to what the tools can do.
 *
 * @param size L of solution; for direct doses the number of units
 * @param water its analysis, for the solution's elements; null for pure water
 * @example recipeOf([12 g in 5 gal], 3.785 L, { scaleStepG: 1, … }).lines[0] // wanted 2.4, measured 2
 */
export function recipeOf(
  uses: readonly ProductUse[],
  products: readonly Product[],
  size: number,
  tools: Tools,
  water: SourceWater | null,
  direct = false,
): Recipe {
  const lines = uses.flatMap((use): RecipeLine[] => {
    const product = products.find((p) => p.id === use.productId);
    if (!product) return [];
    const unit = measuredIn(product, use.unit);
    const dose = amountOf(product, doseAmount(use), use.unit, unit);
    if (!dose.ok) return [];
    const step = unit === 'g' ? tools.scaleStepG : unit === 'mL' ? tools.liquidStepMl : 1;
    return [{ product, use, unit, perBase: dose.value, ...roundToStep(dose.value * size, step) }];
  });
  const at = (amount: (l: RecipeLine) => number) =>
    direct || size <= 0
      ? null
      : solutionOf(
          lines.map((l) => ({ product: l.product, unit: l.unit, amount: amount(l) / size })),
          water,
        );
  return { size, lines, wanted: at((l) => l.wanted), made: at((l) => l.measured) };
}

/** The largest error of a batch, per cent without sign. */
export const worstError = (recipe: Pick<Recipe, 'lines'>): number =>
  Math.max(0, ...recipe.lines.map((l) => Math.abs(l.errorPercent)));
