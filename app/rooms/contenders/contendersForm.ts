import { z } from 'zod';
import { ProductId } from '~core/model/ids';
import { Conditions, Plan, ProductUse, Treatment, noConditions } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { withWinning } from '~core/plan/winning';
import { numberIn } from '~core/quantity/number';
import { type SizeUnits, sizeUnitsOf, volumeField } from '~core/quantity/sizeText';
import { type MeasureSystem, usMeasures } from '~core/quantity/units';
import { parseVolume } from '~core/quantity/volume';
import { recordForm } from '../../form/recordForm';
import {
  type FieldErrors,
  fieldText,
  optionalNumber,
  optionalSize,
  orNull,
  shownIn,
  ticked,
  typedList,
  typedNumber,
  unsaidNumber,
} from '../../form/schemaFields';
import {
  type DoseError,
  type UnitShape,
  checkDose,
  checkSolution,
  givenAs,
  inWater,
  resolveDose,
  shapeOfUnit,
} from './dose';

/** Days as people list them: “28, 35”. */
const dayList = typedList<number>((text) => {
  const days = text === '' ? [] : text.split(/[\s,;]+/).map(Number);
  return days.some((d) => !Number.isInteger(d) || d < 0 || d > 2000)
    ? err('Days of the trial with commas between them: 28, 35.')
    : days.length > 200
      ? err('Up to 200 days.')
      : ok(days);
}, ', ');

/** A dose as it is typed; what it comes to is worked out when product and surroundings are known. */
const UseForm = z.object({
  ...ProductUse.omit({ rateText: true, solutionText: true }).shape,
  productId: z.string().min(1, 'Choose the product.').pipe(ProductId),
  packId: orNull(ProductUse.shape.packId.unwrap()),
  /** a figure, which `unit` goes with, or a rate such as 1 tsp/gal */
  amount: z.string().trim().min(1, 'How much?').superRefine(checkDose),
  /** litres, or a volume such as 1 gal or 2 L/m² */
  solutionLPerUnit: z.string().trim().superRefine(checkSolution),
  timesPerUnit: typedNumber('How often?').pipe(ProductUse.shape.timesPerUnit),
  fromDay: optionalNumber().pipe(ProductUse.shape.fromDay),
  everyDays: optionalNumber().pipe(ProductUse.shape.everyDays),
  strengthPercent: typedNumber('How much of the rate?').pipe(ProductUse.shape.strengthPercent),
  apart: ticked(),
  way: z.enum(givenAs),
});

const { plantsPerUnit, lampW, lampHours, ppfd, finishDay } = Conditions.shape;

const conditionsIn = (units?: SizeUnits) =>
  z.object({
    ...Conditions.shape,
    // Whose gallons are meant is said elsewhere in the form: the plan is made with them.
    containerVolumeL: z
      .string()
      .trim()
      .superRefine((text, ctx) => {
        const litres = text === '' ? null : parseVolume(text, usMeasures);
        if (litres && !litres.ok) ctx.addIssue({ code: 'custom', message: litres.error });
      }),
    plantsPerUnit: optionalNumber().pipe(plantsPerUnit),
    areaPerUnitCm2: optionalSize('area', units),
    seedWeightG: optionalSize('mass', units),
    thousandSeedG: optionalSize('mass'),
    lampW: unsaidNumber(lampW),
    lampHours: unsaidNumber(lampHours),
    ppfd: unsaidNumber(ppfd),
    finishDay: optionalNumber().pipe(finishDay),
  });

const { matchedOn, wholeSystem, factors, mixing } = Plan.shape;

const contendersIn = (units?: SizeUnits) =>
  z
    .object({
      ...{ matchedOn, wholeSystem, factors },
      mixing: mixing.pick({ measures: true }),
      inches: ticked(),
      peers: ticked(),
      treatments: z.array(
        z.object({
          ...Treatment.shape,
          expectedPercent: optionalNumber().pipe(Treatment.shape.expectedPercent),
          conditions: conditionsIn(units),
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

/** The Contenders room's form. */
const ContendersForm = contendersIn();
type Typed = z.output<typeof ContendersForm>;
export type ContendersFormInput = z.input<typeof ContendersForm>;
export type TreatmentInput = ContendersFormInput['treatments'][number];
export type UseInput = TreatmentInput['products'][number];

function litresOfText(text: string, measures: MeasureSystem): number | null {
  const litres = text === '' ? null : parseVolume(text, measures);
  return litres?.ok ? litres.value : null;
}

/** A use with what its dose comes to in these surroundings; or what is wrong, and at which of its fields. */
function useOf(
  { way, apart, ...use }: Typed['treatments'][number]['products'][number],
  product: Product | undefined,
  measures: MeasureSystem,
  shape: UnitShape,
): Result<ProductUse, DoseError> {
  const dose = resolveDose({ ...use, way }, product, measures, shape);
  if (!dose.ok) return dose;
  const typed = inWater(way) ? use.solutionLPerUnit : '';
  return ok({
    ...use,
    ...dose.value,
    apart: inWater(way) ? apart : undefined,
    way: way === 'water' || way === 'dry' ? undefined : way,
    solutionText: typed !== '' && numberIn(typed) === null ? typed : undefined,
  });
}

/** The plan as the Contenders room shows and changes it. Units of a removed contender leave the layout. */
export const contendersRecord = recordForm({
  name: 'treatments',
  schema: ContendersForm,
  in: (plan) => contendersIn(sizeUnitsOf(plan)),
  of: (plan: Plan) => ({
    ...plan,
    treatments: plan.treatments.map((t) => ({
      ...t,
      conditions: {
        ...t.conditions,
        containerVolumeL: volumeField(t.conditions.containerVolumeL, sizeUnitsOf(plan)),
      },
      products: t.products.map((u) => ({
        ...u,
        amount: u.rateText || String(u.amount),
        solutionLPerUnit: u.solutionText ?? fieldText(u.solutionLPerUnit),
        way: u.way ?? (u.solutionLPerUnit === null ? ('dry' as const) : ('water' as const)),
      })),
    })),
  }),
  apply: (plan, f, library) => {
    const products = [...library, ...plan.products];
    const { measures } = f.mixing;
    const errors: FieldErrors = {};
    const treatments = f.treatments.map((t, i): Treatment => {
      const containerVolumeL = litresOfText(t.conditions.containerVolumeL, measures);
      const conditions = { ...t.conditions, containerVolumeL };
      const shape = shapeOfUnit(conditions, plan.unitNoun);
      const uses = t.products.flatMap((u, j) => {
        const product = products.find((p) => p.id === u.productId);
        const use = useOf(u, product, measures, shape);
        if (use.ok) return [use.value];
        errors[`treatments.${i}.products.${j}.${use.error.field}`] = use.error.message;
        return [];
      });
      return { ...t, conditions, products: uses };
    });
    if (Object.keys(errors).length > 0) return err({ tag: 'refused', errors });
    const kept = new Set<string>(treatments.map((t) => t.id));
    return ok(
      withWinning(plan, {
        ...plan,
        ...f,
        factors: f.factors.filter((x) => treatments.some((t) => x.name in t.levels)),
        mixing: { ...plan.mixing, measures },
        treatments,
        units: plan.units.filter((u) => kept.has(u.treatmentId)),
      }),
    );
  },
});

/** Surroundings of which only these are known, as the form shows them. */
export const blankConditions = (known: Partial<Conditions>): TreatmentInput['conditions'] =>
  shownIn(conditionsIn(), { ...noConditions, ...known, containerVolumeL: '' });
