import { type Design, type Plan, type ProductUse, designNames } from '../model/plan';
import { type Product, isDosed } from '../model/product';
import { ofWhat } from '../plan/control';
import { planIndex } from '../plan/planIndex';
import { experimentalNoun, experimentalUnits, sharesPlace } from '../plan/sharing';
import { countOf } from '../quantity/format';

/**
 * What a product is to whoever uses it, and so the words for it:
 * - feed: given in water · spray: sprayed · mixedIn: into the medium, once · dose: poured or dropped as it is · strewn: by weight, without water · tablet: by the piece,
 *   again and again
 * - seed, lamp, system, setUp: bought once and put in place; there is no “a feed” and no “a week” of a pole
 */
export type Thing =
  | 'feed'
  | 'spray'
  | 'dose'
  | 'strewn'
  | 'mixedIn'
  | 'tablet'
  | 'seed'
  | 'lamp'
  | 'system'
  | 'setUp';

export interface ThingWords {
  /** one of it, e.g. feed */
  one: string;
  /** it is given again and again, so that a week of it means something */
  repeats: boolean;
}

export const thingWords: Record<Thing, ThingWords> = {
  feed: { one: 'feed', repeats: true },
  spray: { one: 'spray', repeats: true },
  dose: { one: 'dose', repeats: true },
  mixedIn: { one: 'mixing-in', repeats: false },
  strewn: { one: 'strewing', repeats: true },
  tablet: { one: 'dose', repeats: true },
  seed: { one: 'sowing', repeats: false },
  lamp: { one: 'set-up', repeats: false },
  system: { one: 'set-up', repeats: false },
  setUp: { one: 'set-up', repeats: false },
};

/** What a product is in one contender's use. @example thingOf(pole, product) // 'setUp' */
export function thingOf(use: Pick<ProductUse, 'unit' | 'solutionLPerUnit' | 'way'>, product: Product): Thing {
  const { category } = product;
  if (category === 'light') return 'lamp';
  if (category === 'system') return 'system';
  if (category === 'seed') return 'seed';
  if (!isDosed(category)) return 'setUp';
  if (use.way === 'medium') return 'mixedIn';
  if (use.way === 'spray') return 'spray';
  if (use.solutionLPerUnit !== null) return 'feed';
  if (use.unit === 'piece') return 'tablet';
  return ['g', 'kg', 'oz', 'lb'].includes(use.unit) ? 'strewn' : 'dose';
}

/** Words for all that is given in a trial: of its one kind of thing, or those that fit all. */
export function wordsOfPlan(plan: Pick<Plan, 'treatments' | 'products'>): ThingWords {
  const things = plan.treatments.flatMap((t) =>
    t.products.flatMap((u) => {
      const product = plan.products.find((p) => p.id === u.productId);
      return product ? [thingWords[thingOf(u, product)]] : [];
    }),
  );
  const ones = new Set(things.map((w) => w.one));
  return {
    one: ones.size === 1 ? [...ones][0]! : things.every((w) => !w.repeats) ? 'set-up' : 'dose',
    repeats: things.some((w) => w.repeats),
  };
}

/** The smallest difference that matters, in words; null where none was set. @example '10 % of the control' */
export function sayMargin(plan: Plan): string | null {
  const d = plan.smallestDifference;
  if (!d) return null;
  const unit = plan.primaryTraitId ? (planIndex(plan).trait(plan.primaryTraitId)?.unit ?? '') : '';
  return d.kind === 'percent' ? `${d.value} % ${ofWhat(plan)}` : `${d.value} ${unit}`.trim();
}

/**
 * How units were given out, in words; where they share their area, that the area is what was given something.
 * @example sayDesign(plan, design) // 'random, in complete blocks'
 */
export const sayDesign = (plan: Plan, { kind }: Pick<Design, 'kind'>): string =>
  sharesPlace(plan)
    ? `given out to ${countOf(experimentalUnits(plan).length, experimentalNoun(plan))}, which are the repeats: what stands in one got its treatment together`
    : designNames[kind];
