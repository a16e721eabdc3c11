import type { Plan } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { isGiven } from './dueMixes';
import { measuredIn } from './recipe';

/** What the doses of a plan are given with. */
export interface Needed {
  /** something dry is weighed, or measured by the spoon */
  dry: boolean;
  /** something liquid is measured */
  liquid: boolean;
  /** there is water to speak of: something is given in it, or nothing is given at all and a tank may be read */
  inWater: boolean;
}

/**
 * Tools and settings a plan's doses ask for, so that nothing else is asked: granules by the gram need a scale and
 * no syringe, a tablet neither.
 *
 * @example neededFor(lawnFeedStrewn) // { dry: true, liquid: false, inWater: false }
 */
export function neededFor(plan: Plan): Needed {
  const given = plan.treatments
    .flatMap((t) => t.products)
    .map((use) => ({ use, product: planIndex(plan).product(use.productId) }))
    .filter(({ use, product }) => isGiven(use, product));
  const inWater = given.length === 0 || given.some(({ use }) => use.solutionLPerUnit !== null);
  const needed: Needed = { dry: false, liquid: false, inWater };
  for (const { use, product } of given) {
    if (!product || measuredIn(product, use.unit, false) === 'piece') continue;
    if (product.form === 'liquid') needed.liquid = true;
    else needed.dry = true;
  }
  return needed;
}
