import { newInVersion3 } from '../model/blankPlan';
import type { Plan } from '../model/plan';
import type { Product } from '../model/product';

/** Plans and products as builds before this one wrote them, for tests of the migrations. */

export const without = (o: object, ...keys: string[]): Record<string, unknown> =>
  Object.fromEntries(Object.entries(o).filter(([k]) => !keys.includes(k)));

export function productAsVersion1(p: Product): Record<string, unknown> {
  return {
    ...without(p, 'labelRate', 'labelMeasures', 'spoon', 'ownMeasures', 'solubilityGPerL', 'character'),
    analysis:
      p.analysis &&
      without(p.analysis, 'nitratePercent', 'ammoniumPercent', 'ureaPercent', 'micros', 'printedAs'),
    packs: p.packs.map((k) => without(k, 'count')),
  };
}

export function planAsVersion2(p: Plan): Record<string, unknown> {
  return {
    ...without(p, ...Object.keys(newInVersion3())),
    treatments: p.treatments.map((t) => ({
      ...without(t, 'flushDays'),
      products: t.products.map((u) => without(u, 'rateText', 'fromDay', 'everyDays', 'strengthPercent')),
    })),
    products: p.products.map(productAsVersion1),
  };
}
