import type { Plan } from '../model/plan';
import { isDosed } from '../model/product';
import { planIndex } from '../plan/planIndex';
import type { Batch } from './batch';
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
    .filter(({ use, product }) => product && (use.solutionLPerUnit !== null || isDosed(product.category)));
  const inWater = given.length === 0 || given.some(({ use }) => use.solutionLPerUnit !== null);
  const needed: Needed = { dry: false, liquid: false, inWater };
  for (const { use, product } of given) {
    if (!product || measuredIn(product, use.unit, false) === 'piece') continue;
    if (product.form === 'liquid') needed.liquid = true;
    else needed.dry = true;
  }
  return needed;
}

/**
 * What a batch must not hurt anybody with, for what is in it and nothing else; labels come first.
 *
 * @returns '' for plain water; what is given as it is says its own at each step
 */
export function batchCaution(lines: Batch['lines'], direct: boolean): string {
  if (lines.length === 0) return '';
  const dry = lines.some((l) => l.product.form !== 'liquid' && l.unit !== 'piece');
  const liquid = lines.some((l) => l.product.form === 'liquid');
  return [
    !direct && lines.length > 1 && 'Each into the water on its own, never concentrates together.',
    !direct && lines.length === 1 && liquid && 'The concentrate into the water, never water into it.',
    dry && !direct && 'Gloves and eye protection where powder is stirred in.',
    liquid && 'Gloves and eye protection with acids, peroxide and what the label says.',
    (dry || liquid) && 'Never in food or drink bottles without a label.',
    'Labels and safety data sheets come first.',
  ]
    .filter((s) => s !== false)
    .join(' ');
}
