import { err, ok } from '~core/model/result';
import { recordForm } from '../../form/recordForm';
import { z } from 'zod';
import { ProductId, TreatmentId as TreatmentIdSchema } from '~core/model/ids';
import { Conditions, Factor, type Plan, ProductUse, Role, Treatment, matchings } from '~core/model/plan';
import { AmountUnit, type Product } from '~core/model/product';
import { MeasureSystem, usMeasures } from '~core/quantity/units';
import {
  type FieldErrors,
  fieldText,
  optionalNumber,
  optionalSize,
  typedNumber,
} from '../../form/schemaFields';
import { type SizeUnits, areaField, sizeUnitsOf, volumeField, weightField } from '~core/quantity/sizeText';
import { parseVolume } from '~core/quantity/volume';
import { numberIn } from '~core/quantity/number';
import { withWinning } from '~core/plan/winning';
import { type UnitShape, checkDose, checkSolution, givenAs, inWater, resolveDose, shapeOfUnit } from './dose';

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
  productId: z.string().min(1, 'Choose the product.').pipe(ProductId),
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
  strengthPercent: typedNumber('How much of the rate?').pipe(ProductUse.shape.strengthPercent),
  apart: z.boolean(),
  way: z.enum(givenAs),
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
  containerVolumeL: z
    .string()
    .trim()
    .superRefine((text, ctx) => {
      // Whose gallons are meant is said elsewhere in the form: the plan is made with them.
      const litres = text === '' ? null : parseVolume(text, usMeasures);
      if (litres && !litres.ok) ctx.addIssue({ code: 'custom', message: litres.error });
    }),
  plantsPerUnit: measure(),
  areaPerUnitCm2: optionalSize('area'),
  seedWeightG: optionalSize('mass'),
  thousandSeedG: optionalSize('mass'),
  lampW: measure(),
  lampHours: measure(),
  ppfd: measure(),
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
    inches: z.boolean().default(false),
    wholeSystem: z.boolean(),
    peers: z.boolean(),
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

function litresOfText(text: string, measures: MeasureSystem): number | null {
  const litres = text === '' ? null : parseVolume(text, measures);
  return litres?.ok ? litres.value : null;
}

const unitShape = (c: z.output<typeof ConditionsForm>, noun: string, measures: MeasureSystem): UnitShape =>
  shapeOfUnit({ ...c, containerVolumeL: litresOfText(c.containerVolumeL, measures) }, noun);

/** What only shows when products and surroundings are known: at its field. */
export function doseErrors(
  f: z.output<typeof ContendersForm>,
  products: readonly Product[],
  unitNoun: string,
): FieldErrors {
  const errors: FieldErrors = {};
  f.treatments.forEach((t, i) =>
    t.products.forEach((u, j) => {
      const product = products.find((p) => p.id === u.productId);
      const dose = resolveDose(u, product, measuresOf(f), unitShape(t.conditions, unitNoun, measuresOf(f)));
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
      conditions: {
        ...saidOf(x.conditions),
        containerVolumeL: litresOfText(x.conditions.containerVolumeL, measures),
      },
      products: x.products.map((u) => {
        const product = products.find((p) => p.id === u.productId);
        const dose = resolveDose(u, product, measures, unitShape(x.conditions, plan.unitNoun, measures));
        if (!dose.ok) throw new Error(dose.error.message);
        const { apart, way, ...rest } = u;
        const typed = inWater(way) ? u.solutionLPerUnit : '';
        return {
          ...rest,
          ...dose.value,
          packId: u.packId || null,
          ...(apart && inWater(way) && { apart }),
          ...(way !== 'water' && way !== 'dry' && { way }),
          ...(typed !== '' && numberIn(typed) === null && { solutionText: typed }),
        };
      }),
    }),
  );
  const keptIds = new Set<string>(treatments.map((x) => x.id));
  const used = (name: string) => treatments.some((x) => name in x.levels);
  const { peers: _, inches: __, ...rest } = plan;
  return {
    ...rest,
    ...(f.peers && { peers: f.peers }),
    ...(f.inches && { inches: f.inches }),
    matchedOn: f.matchedOn,
    wholeSystem: f.wholeSystem,
    factors: f.factors.filter((x) => used(x.name)),
    mixing: { ...plan.mixing, measures },
    treatments,
    units: plan.units.filter((u) => keptIds.has(u.treatmentId)),
  };
}

/** Figures of lamps came later than the other conditions: what nobody says isn't in the plan. */
function saidOf<C extends { lampW: number | null; lampHours: number | null; ppfd: number | null }>({
  lampW,
  lampHours,
  ppfd,
  ...rest
}: C) {
  return {
    ...rest,
    ...(lampW !== null && { lampW }),
    ...(lampHours !== null && { lampHours }),
    ...(ppfd !== null && { ppfd }),
  };
}

export const conditionsText = (x: Conditions, units: SizeUnits): TreatmentInput['conditions'] => ({
  ...x,
  containerVolumeL: volumeField(x.containerVolumeL, units),
  plantsPerUnit: fieldText(x.plantsPerUnit),
  areaPerUnitCm2: areaField(x.areaPerUnitCm2, units),
  seedWeightG: weightField(x.seedWeightG, units),
  thousandSeedG: fieldText(x.thousandSeedG),
  lampW: fieldText(x.lampW),
  lampHours: fieldText(x.lampHours),
  ppfd: fieldText(x.ppfd),
  finishDay: fieldText(x.finishDay),
});

export function toContendersForm(plan: Plan): ContendersFormInput {
  return {
    matchedOn: plan.matchedOn,
    spoonSystem: plan.mixing.measures.spoon,
    gallonSystem: plan.mixing.measures.gallon,
    inches: plan.inches ?? false,
    wholeSystem: plan.wholeSystem,
    peers: plan.peers ?? false,
    factors: plan.factors,
    treatments: plan.treatments.map((x) => ({
      ...x,
      expectedPercent: fieldText(x.expectedPercent),
      conditions: conditionsText(x.conditions, sizeUnitsOf(plan)),
      flushDays: x.flushDays.join(', '),
      products: x.products.map((u) => ({
        productId: u.productId,
        packId: u.packId ?? '',
        amount: u.rateText || String(u.amount),
        unit: u.unit,
        solutionLPerUnit: u.solutionText ?? fieldText(u.solutionLPerUnit),
        timesPerUnit: String(u.timesPerUnit),
        stage: u.stage,
        fromDay: fieldText(u.fromDay),
        everyDays: fieldText(u.everyDays),
        strengthPercent: String(u.strengthPercent),
        apart: u.apart ?? false,
        way: u.way ?? (u.solutionLPerUnit === null ? 'dry' : 'water'),
      })),
    })),
  };
}

/** The plan as the Contenders room shows and changes it. */
export const contendersRecord = recordForm({
  name: 'treatments',
  shown: toContendersForm,
  schema: ContendersForm,
  apply: (plan: Plan, values, library) => {
    const products = [...library, ...plan.products];
    const errors = doseErrors(values, products, plan.unitNoun);
    return Object.keys(errors).length > 0
      ? err({ tag: 'refused' as const, errors })
      : ok(withWinning(plan, applyContenders(plan, values, products)));
  },
});
