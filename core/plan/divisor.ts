import type { Area, Plan, Trait, Unit } from '../model/plan';
import { singular } from '../quantity/format';
import { planIndex } from './planIndex';

/** Ground itself is the unit there: what a position covers is what was treated. */
const inGround: ReadonlySet<Area['kind']> = new Set<Area['kind']>(['bed', 'lawn']);

/**
 * The ground a unit covers, m²: in a bed or lawn its share of the area, unless units have a size of their own; else
 * the area written for its treatment; else the size units have.
 *
 * @returns null where none of these is known
 * @example groundOf(plan, strip) // 1.53, for a lawn of 170 × 90 cm with one strip in it
 */
export function groundOf(plan: Plan, unit: Pick<Unit, 'treatmentId' | 'position'>): number | null {
  const { unitWidthCm: w, unitDepthCm: d } = plan;
  const area = planIndex(plan).area(unit.position.areaId);
  const sized = w !== null && d !== null;
  if (area && !sized && inGround.has(area.kind) && area.widthCm && area.depthCm) {
    return (area.widthCm * area.depthCm) / (area.rows * area.columns) / 10_000;
  }
  const ownArea = planIndex(plan).treatment(unit.treatmentId)?.conditions.areaPerUnitCm2 ?? null;
  if (ownArea !== null) return ownArea / 10_000;
  if (!sized) return null;
  return ((plan.unitShape === 'round' ? Math.PI / 4 : 1) * w * d) / 10_000;
}

/**
 * What a unit's figure is divided by before units are compared: 1 for a result per unit, the plants in it, its
 * ground in m².
 *
 * @returns null where the plan doesn't say how many or how much
 */
export function divisorOf(
  plan: Plan,
  unit: Pick<Unit, 'treatmentId' | 'position'>,
  trait: Pick<Trait, 'per'>,
): number | null {
  switch (trait.per) {
    case undefined:
      return 1;
    case 'plant':
      return planIndex(plan).treatment(unit.treatmentId)?.conditions.plantsPerUnit ?? null;
    case 'area':
      return groundOf(plan, unit);
    // What the log has to say is divided by in `core/log/givenDivisor`.
    case 'water':
    case 'energy':
    case 'light':
    case 'nitrogen':
    case 'day':
      return 1;
  }
}

/** What results are per, as said behind a figure: “g/m²”, “g a plant”. */
const perWords: Record<NonNullable<Trait['per']>, string> = {
  plant: ' a plant',
  area: '/m²',
  water: '/L',
  energy: '/kWh',
  light: '/mol',
  nitrogen: ' a g of N',
  day: ' a day',
};

/** What a divisor is, in words. @example divisorNames.water // 'litre of water' */
export const divisorNames: Record<NonNullable<Trait['per']>, string> = {
  plant: 'plant',
  area: 'm² of ground',
  water: 'litre of water',
  energy: 'kWh',
  light: 'mol of light',
  nitrogen: 'gram of nitrogen',
  day: 'day',
};

/** A trait as it is compared: its unit says what its figures were divided by. */
export function comparedTrait(trait: Trait): Trait {
  const own = trait.summary === 'growth' ? { ...trait, unit: '% a day', decimals: 2 } : trait;
  return own.per === undefined ? own : { ...own, unit: `${own.unit}${perWords[own.per]}` };
}

/** Units whose figure can't be divided, because the plan doesn't say by what. */
export const withoutDivisor = (plan: Plan, trait: Trait): Unit[] =>
  plan.units.filter((u) => divisorOf(plan, u, trait) === null);

/** How many times the largest ground of a unit is the smallest; null where it isn't known for all. */
export function groundRatio(plan: Plan): number | null {
  const grounds = plan.units.map((u) => groundOf(plan, u));
  const known = grounds.filter((g) => g !== null);
  if (known.length === 0 || known.length < grounds.length) return null;
  return Math.max(...known) / Math.min(...known);
}

/** What a result is per. @example perOf(trait, 'strip') // 'm²' */
export const perOf = ({ per }: Pick<Trait, 'per'>, unitNoun: string): string =>
  per === undefined ? unitNoun : per === 'area' ? 'm²' : divisorNames[per];

/** Words have a singular, short units none. @example oneOf('points') // 'point'; oneOf('g') // 'g' */
const oneOf = (unit: string): string => (/^[a-z]{4,}$/i.test(unit) ? singular(unit) : unit);

/** What is bought when a result costs money: grams, also where they are compared per m². @example 'g' for 'g/m²' */
export const resultUnit = ({ unit, per }: Pick<Trait, 'unit' | 'per'>): string =>
  oneOf(per === undefined ? unit : unit.replace(perWords[per], ''));
