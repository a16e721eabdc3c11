import { type Part, contentsOf } from '~core/mixing/order';
import { type Recipe, type RecipeLine, type Tools, recipeOf } from '~core/mixing/recipe';
import { DOSE_ERROR_LIMIT, smallestBatch } from '~core/mixing/rounding';
import { spoonsText } from '~core/mixing/spoons';
import type { Product } from '~core/model/product';
import type { Result } from '~core/model/result';
import type { MeasureSystem } from '~core/quantity/units';
import { parseVolume } from '~core/quantity/volume';
import { type CalculatorRow, type RowRead, readRow } from './calculatorRow';

/** What the calculator’s fields come to. */
export interface Calculation {
  /** the volume typed, L; or what is wrong with it */
  litres: Result<number, string>;
  /** the rows as read, in their order */
  read: RowRead[];
  /** null until there is a volume and a dose */
  recipe: Recipe | null;
  /** for the mixing order */
  parts: Part[];
  /** lines further off than the limit */
  off: RecipeLine[];
  /** the smallest batch that cures them, L; null: none, or none needed */
  biggerL: number | null;
}

interface Asked {
  rows: readonly CalculatorRow[];
  volume: string;
  measures: MeasureSystem;
  tools: Tools;
  products: readonly Product[];
}

/** Works the calculator out: fields to recipe, errors, order and cure. */
export function calculate({ rows, volume, measures, tools, products }: Asked): Calculation {
  const litres = parseVolume(volume, measures);
  const read = rows.map((row) => readRow(row, products, measures, litres.ok ? litres.value : null));
  const doses = read.flatMap((r) => (r.dose ? [r.dose] : []));
  const recipe =
    litres.ok && doses.length > 0
      ? recipeOf(
          doses.map((d) => d.use),
          doses.map((d) => d.product),
          litres.value,
          tools,
          null,
        )
      : null;
  const lines = recipe?.lines ?? [];
  const off = lines.filter((l) => Math.abs(l.errorPercent) > DOSE_ERROR_LIMIT);
  return {
    litres,
    read,
    recipe,
    parts: lines.map((l) => ({
      id: l.product.id,
      name: l.product.name,
      amount: l.spooned
        ? `${spoonsText(l.measured, measures)}, level,`
        : `${Number(l.measured.toPrecision(4))} ${l.unit}`,
      contents: contentsOf(l.product),
    })),
    off,
    biggerL:
      recipe && off.length > 0
        ? smallestBatch(
            lines.map((l) => ({ perL: l.perBase, step: l.step || null })),
            recipe.size,
          )
        : null,
  };
}
