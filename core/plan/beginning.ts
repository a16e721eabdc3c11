import { blankTreatment } from '../model/blankPlan';
import { noConditions } from '../model/plan';
import type { Conditions, Plan, Treatment } from '../model/plan';

/** What is the same for all from the beginning. */
type Alike = Pick<Conditions, 'crop' | 'plantsPerUnit'> & Partial<Pick<Conditions, 'areaPerUnitCm2'>>;

/**
 * Contenders to begin with: an untreated control, where one is wanted, and one for each product. Doses are the
 * reviewer's to give.
 *
 * @param control what the untreated one is called; null: there is none
 * @example contendersOf([duo], 'Water', { crop: 'parsley', plantsPerUnit: null }).map((t) => t.name) // ['Water', 'Duo Lume']
 */
export function contendersOf(
  products: readonly { name: string }[],
  control: string | null,
  alike: Alike,
): Treatment[] {
  const conditions = { ...noConditions, ...alike };
  const untreated = control === null ? [] : [{ ...blankTreatment(control, 'untreated'), conditions }];
  return [
    ...untreated,
    ...products.map((p) => ({ ...blankTreatment(p.name.slice(0, 80), 'test'), conditions })),
  ];
}

/**
 * Contenders of a trial of additives: the base feed alone as the control, and each additive on top of it.
 *
 * @example additivesOn(uno, [extra], { crop: 'chilli', plantsPerUnit: 1 }).map((t) => t.name) // ['Uno alone', 'Uno + Extra']
 */
export function additivesOn(
  base: { name: string },
  additives: readonly { name: string }[],
  alike: Alike,
): Treatment[] {
  const conditions = { ...noConditions, ...alike };
  return [
    { ...blankTreatment(`${base.name.slice(0, 74)} alone`, 'base'), conditions },
    ...additives.map((p) => ({
      // Both are there, however long: contenders are told apart by their names.
      ...blankTreatment(`${base.name.slice(0, 38)} + ${p.name.slice(0, 39)}`, 'test'),
      conditions,
    })),
  ];
}

/** The crop of a plan changed: contenders that grow the old one, or none that is named, grow the new one. */
export const withCrop = (plan: Plan, crop: string): Plan =>
  crop === plan.crop
    ? plan
    : {
        ...plan,
        crop,
        treatments: plan.treatments.map((t) =>
          t.conditions.crop === plan.crop || t.conditions.crop === ''
            ? { ...t, conditions: { ...t.conditions, crop } }
            : t,
        ),
      };
