import { newInVersion3 } from '../model/blankPlan';
import type { Entry } from '../log/entry';
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

/** Version 3 called matching on any element “nitrogen”. */
export const planAsVersion3 = (p: Plan): Record<string, unknown> => ({
  ...p,
  matchedOn: p.matchedOn === 'element' ? 'nitrogen' : p.matchedOn,
});

/** A line as version 3 wrote it: without a logical clock, weighings of a whole unit without a sample. */
export function entryAsVersion3(e: Entry): Record<string, unknown> {
  const bare = without(e, 'counter', 'device', 'offsetMin');
  return bare.kind === 'weighing' && bare.sample === null ? without(bare, 'sample') : bare;
}

export function planAsVersion2(plan: Plan): Record<string, unknown> {
  const p = planAsVersion3(plan) as unknown as Plan;
  return {
    ...without(p, ...Object.keys(newInVersion3())),
    treatments: p.treatments.map((t) => ({
      ...without(t, 'flushDays'),
      products: t.products.map((u) => without(u, 'rateText', 'fromDay', 'everyDays', 'strengthPercent')),
    })),
    products: p.products.map(productAsVersion1),
  };
}
