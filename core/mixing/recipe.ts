import type { AmountUnit, Product } from '../model/product';
import type { SourceWater } from '../model/mixingSetUp';
import { type ProductUse, doseAmount } from '../model/treatment';
import { dimensionOf } from '../quantity/amount';
import type { BucketUnit } from '../quantity/volume';
import { amountOf } from './density';
import { type Rounded, roundToStep } from './rounding';
import { type Solution, solutionOf } from './solution';

/** The tools a batch is measured with. */
export interface Tools {
  /** smallest step of the scale, g; null: taken as exact */
  scaleStepG: number | null;
  /** smallest step of syringe or cylinder, mL; null: taken as exact */
  liquidStepMl: number | null;
  /** level spoons in place of a scale: the smallest part of one that can be measured, mL; null: weighed */
  spoonStepMl?: number | null;
  /** what the marks of the bucket count; litres when not said */
  bucketIn?: BucketUnit;
}

/** One product of a batch: what is wanted and what the tool can do. */
export interface RecipeLine extends Rounded {
  product: Product;
  use: ProductUse;
  unit: 'g' | 'mL' | 'piece';
  /** a powder measured by the level spoon */
  spooned: boolean;
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

/**
 * What a product is measured in: liquids by volume, the rest by weight or by the spoon, where a density
 * allows it.
 */
export function measuredIn(product: Product, unit: AmountUnit, bySpoon: boolean): 'g' | 'mL' | 'piece' {
  const dimension = dimensionOf(unit);
  if (dimension === 'count') return 'piece';
  if (bySpoon && product.form !== 'liquid' && amountOf(product, 1, unit, 'mL').ok) return 'mL';
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
    const bySpoon = tools.spoonStepMl != null;
    const unit = measuredIn(product, use.unit, bySpoon);
    const dose = amountOf(product, doseAmount(use), use.unit, unit);
    if (!dose.ok) return [];
    const spooned = unit === 'mL' && product.form !== 'liquid' && bySpoon;
    const step =
      unit === 'g'
        ? tools.scaleStepG
        : unit === 'piece'
          ? 1
          : spooned
            ? tools.spoonStepMl!
            : tools.liquidStepMl;
    return [{ product, use, unit, spooned, perBase: dose.value, ...roundToStep(dose.value * size, step) }];
  });
  const at = (amount: (l: RecipeLine) => number) =>
    direct || size <= 0
      ? null
      : solutionMade(
          lines.map((l) => ({ product: l.product, unit: l.unit, amount: amount(l) })),
          size,
          water,
        );
  return { size, lines, wanted: at((l) => l.wanted), made: at((l) => l.measured) };
}

/** A line taken from a stock solution in place of the pack. */
export interface FromStock {
  batch: string;
  /** mL of the stock */
  take: Rounded;
  /** of the product that much stock holds, in the line's unit */
  held: number;
}

/**
 * What a line takes of a stock solution.
 *
 * @param stock so much of the product, in `unit`, in how many litres
 * @param liquidStepMl step of syringe or cylinder
 * @returns null for lines that aren't measured in the stock's unit, and for level spoons
 * @example lineFromStock(2.4 g wanted, 25 g in 0.25 L, 1 mL) // take 24 mL, which hold 2.4 g
 */
export function lineFromStock(
  line: Pick<RecipeLine, 'unit' | 'wanted' | 'spooned'>,
  stock: { batch: string; amount: number; unit: AmountUnit; volumeL: number },
  liquidStepMl: number | null,
): FromStock | null {
  if (line.unit !== stock.unit || line.spooned) return null;
  const take = roundToStep((1000 * line.wanted * stock.volumeL) / stock.amount, liquidStepMl);
  return { batch: stock.batch, take, held: (take.measured / 1000) * (stock.amount / stock.volumeL) };
}

/** A solution from what really went into so many litres. */
export const solutionMade = (
  parts: readonly { product: Product; unit: AmountUnit; amount: number }[],
  volumeL: number,
  water: SourceWater | null,
): Solution =>
  solutionOf(
    parts.map((p) => ({ ...p, amount: p.amount / volumeL })),
    water,
  );
