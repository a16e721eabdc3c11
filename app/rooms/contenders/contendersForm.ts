import { z } from 'zod';
import { type TreatmentId, ProductId, TreatmentId as TreatmentIdSchema } from '~core/model/ids';
import { newId } from '~core/model/newId';
import {
  Conditions,
  Factor,
  type Plan,
  ProductUse,
  Role,
  Treatment,
  matchings,
  noConditions,
} from '~core/model/plan';
import { AmountUnit, type Product } from '~core/model/product';
import { dimensionOf } from '~core/quantity/amount';
import { MeasureSystem } from '~core/quantity/measure';
import { type FieldErrors, fieldText, optionalNumber, typedNumber } from '../../form/schemaFields';
import { checkDose, checkSolution, resolveDose } from './dose';

/** Days as people list them: “28, 35”. */
const dayList = z
  .string()
  .trim()
  .transform((text, ctx) => {
    const days = text === '' ? [] : text.split(/[\s,;]+/).map(Number);
    if (days.some((d) => !Number.isInteger(d) || d < 0 || d > 2000)) {
      ctx.addIssue({ code: 'custom', message: 'Days of the trial with commas between them: 28, 35.' });
      return z.NEVER;
    }
    return days;
  });

const UseForm = z.object({
  productId: ProductId,
  packId: z.string(),
  /** a figure, which `unit` goes with, or a rate such as 1 tsp/gal */
  amount: z.string().trim().min(1, 'How much?').superRefine(checkDose),
  unit: AmountUnit,
  /** litres, or a volume such as 1 gal or 2 L/m² */
  solutionLPerUnit: z.string().trim().superRefine(checkSolution),
  timesPerUnit: typedNumber('How often?').pipe(
    z.number().int('Whole times.').min(1, 'At least once.').max(10_000),
  ),
  stage: ProductUse.shape.stage,
  fromDay: optionalNumber().pipe(ProductUse.shape.fromDay),
  everyDays: optionalNumber().pipe(ProductUse.shape.everyDays),
  strengthPercent: typedNumber('How strong?').pipe(ProductUse.shape.strengthPercent),
});

const measure = () => optionalNumber().pipe(z.number().positive('More than 0.').nullable());
const c = Conditions.shape;

const ConditionsForm = z.object({
  crop: c.crop,
  variety: c.variety,
  seedLot: c.seedLot,
  startSize: c.startSize,
  mediumLot: c.mediumLot,
  handling: c.handling,
  containerVolumeL: measure(),
  plantsPerUnit: measure(),
  areaPerUnitCm2: measure(),
  seedWeightG: measure(),
  thousandSeedG: measure(),
  finishDay: optionalNumber().pipe(
    z.number().int('Whole days.').min(0, 'Not before the start.').max(2000).nullable(),
  ),
  mediumFed: z.boolean(),
});

const t = Treatment.shape;

/** The Contenders room's form. */
export const ContendersForm = z
  .object({
    matchedOn: z.enum(matchings),
    spoonSystem: MeasureSystem.shape.spoon,
    gallonSystem: MeasureSystem.shape.gallon,
    wholeSystem: z.boolean(),
    factors: z.array(Factor).max(4),
    treatments: z.array(
      z.object({
        id: TreatmentIdSchema,
        name: t.name,
        role: Role,
        expectedPercent: optionalNumber().pipe(
          z.number().min(-100, 'Not below −100 %.').max(10_000, 'Up to 10,000 %.').nullable(),
        ),
        container: t.container,
        medium: t.medium,
        light: t.light,
        system: t.system,
        water: t.water,
        notes: t.notes,
        levels: t.levels,
        conditions: ConditionsForm,
        flushDays: dayList,
        products: z.array(UseForm),
      }),
    ),
  })
  .superRefine((f, ctx) => {
    const names = f.treatments.map((x) => x.name.toLowerCase());
    names.forEach((n, i) => {
      if (n && names.indexOf(n) !== i) {
        ctx.addIssue({
          code: 'custom',
          path: ['treatments', i, 'name'],
          message: 'Another contender has this name.',
        });
      }
    });
  });
export type ContendersFormInput = z.input<typeof ContendersForm>;
export type TreatmentInput = ContendersFormInput['treatments'][number];
export type UseInput = TreatmentInput['products'][number];

const measuresOf = (f: Pick<z.output<typeof ContendersForm>, 'spoonSystem' | 'gallonSystem'>) => ({
  spoon: f.spoonSystem,
  gallon: f.gallonSystem,
});

/** What only shows when products and surroundings are known: at its field. */
export function doseErrors(f: z.output<typeof ContendersForm>, products: readonly Product[]): FieldErrors {
  const errors: FieldErrors = {};
  f.treatments.forEach((t, i) =>
    t.products.forEach((u, j) => {
      const product = products.find((p) => p.id === u.productId);
      const dose = resolveDose(u, product, measuresOf(f), t.conditions.areaPerUnitCm2);
      if (!dose.ok) errors[`treatments.${i}.products.${j}.${dose.error.field}`] = dose.error.message;
    }),
  );
  return errors;
}

/**
 * The plan with these contenders. Units of a removed contender leave the layout.
 * @param products that the doses are of; `doseErrors` has found nothing
 */
export function applyContenders(
  plan: Plan,
  f: z.output<typeof ContendersForm>,
  products: readonly Product[],
): Plan {
  const measures = measuresOf(f);
  const treatments = f.treatments.map((x) =>
    Treatment.parse({
      ...x,
      products: x.products.map((u) => {
        const product = products.find((p) => p.id === u.productId);
        const dose = resolveDose(u, product, measures, x.conditions.areaPerUnitCm2);
        if (!dose.ok) throw new Error(dose.error.message);
        return { ...u, ...dose.value, packId: u.packId || null };
      }),
    }),
  );
  const kept = new Set<string>(treatments.map((x) => x.id));
  const used = (name: string) => treatments.some((x) => name in x.levels);
  return {
    ...plan,
    matchedOn: f.matchedOn,
    wholeSystem: f.wholeSystem,
    factors: f.factors.filter((x) => used(x.name)),
    mixing: { ...plan.mixing, measures },
    treatments,
    units: plan.units.filter((u) => kept.has(u.treatmentId)),
  };
}

const conditionsText = (x: Conditions): TreatmentInput['conditions'] => ({
  ...x,
  containerVolumeL: fieldText(x.containerVolumeL),
  plantsPerUnit: fieldText(x.plantsPerUnit),
  areaPerUnitCm2: fieldText(x.areaPerUnitCm2),
  seedWeightG: fieldText(x.seedWeightG),
  thousandSeedG: fieldText(x.thousandSeedG),
  finishDay: fieldText(x.finishDay),
});

/** An empty contender; what surrounds it is taken from another one. */
export function newTreatment(role: Role, like?: TreatmentInput): TreatmentInput {
  return {
    id: newId<TreatmentId>() as string,
    name: role === 'untreated' ? 'Water' : '',
    role,
    expectedPercent: '',
    container: like?.container ?? '',
    medium: like?.medium ?? '',
    light: like?.light ?? '',
    system: like?.system ?? '',
    water: like?.water ?? '',
    notes: '',
    levels: {},
    flushDays: '',
    conditions: like ? { ...like.conditions } : conditionsText(noConditions),
    products: [],
  };
}

/** A dose to begin with, counted the way the product is sold. */
export function newUse(product: Product): UseInput {
  const sold = dimensionOf(product.packs[0]?.unit ?? (product.form === 'liquid' ? 'mL' : 'g'));
  const unit: AmountUnit = sold === 'mass' ? 'g' : sold === 'volume' ? 'mL' : 'piece';
  return {
    productId: product.id as string,
    packId: '',
    amount: '',
    unit,
    solutionLPerUnit: '',
    timesPerUnit: '1',
    stage: '',
    fromDay: '',
    everyDays: '',
    strengthPercent: '100',
  };
}

export function toContendersForm(plan: Plan): ContendersFormInput {
  return {
    matchedOn: plan.matchedOn,
    spoonSystem: plan.mixing.measures.spoon,
    gallonSystem: plan.mixing.measures.gallon,
    wholeSystem: plan.wholeSystem,
    factors: plan.factors,
    treatments: plan.treatments.map((x) => ({
      ...x,
      expectedPercent: fieldText(x.expectedPercent),
      conditions: conditionsText(x.conditions),
      flushDays: x.flushDays.join(', '),
      products: x.products.map((u) => ({
        productId: u.productId,
        packId: u.packId ?? '',
        amount: u.rateText || String(u.amount),
        unit: u.unit,
        solutionLPerUnit: fieldText(u.solutionLPerUnit),
        timesPerUnit: String(u.timesPerUnit),
        stage: u.stage,
        fromDay: fieldText(u.fromDay),
        everyDays: fieldText(u.everyDays),
        strengthPercent: String(u.strengthPercent),
      })),
    })),
  };
}
