import { z } from 'zod';
import { type TreatmentId, ProductId, TreatmentId as TreatmentIdSchema, newId } from '~core/model/ids';
import { type Plan, Role, Treatment } from '~core/model/plan';
import { AmountUnit, type Product } from '~core/model/product';
import { dimensionOf } from '~core/quantity/amount';
import { fieldText, optionalNumber, typedNumber } from '../../form/schemaFields';

const UseForm = z.object({
  productId: ProductId,
  packId: z.string(),
  amount: typedNumber('How much?').pipe(z.number().positive('More than nothing.')),
  unit: AmountUnit,
  solutionLPerUnit: optionalNumber().pipe(z.number().positive('More than 0 L.').nullable()),
  timesPerUnit: typedNumber('How often?').pipe(
    z.number().int('Whole times.').min(1, 'At least once.').max(10_000),
  ),
});

/** The Contenders room's form. */
export const ContendersForm = z
  .object({
    treatments: z.array(
      z.object({
        id: TreatmentIdSchema,
        name: Treatment.shape.name,
        role: Role,
        container: Treatment.shape.container,
        medium: Treatment.shape.medium,
        light: Treatment.shape.light,
        water: Treatment.shape.water,
        notes: Treatment.shape.notes,
        products: z.array(UseForm),
      }),
    ),
  })
  .superRefine((f, ctx) => {
    const names = f.treatments.map((t) => t.name.toLowerCase());
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

/** The plan with these contenders. Units of a removed contender leave the layout. */
export function applyContenders(plan: Plan, f: z.output<typeof ContendersForm>): Plan {
  const treatments = f.treatments.map((t) =>
    Treatment.parse({ ...t, products: t.products.map((u) => ({ ...u, packId: u.packId || null })) }),
  );
  const kept = new Set<string>(treatments.map((t) => t.id));
  return { ...plan, treatments, units: plan.units.filter((u) => kept.has(u.treatmentId)) };
}

export function newTreatment(role: Role, like?: ContendersFormInput['treatments'][number]) {
  return {
    id: newId<TreatmentId>() as string,
    name: role === 'untreated' ? 'Water' : '',
    role,
    container: like?.container ?? '',
    medium: like?.medium ?? '',
    light: like?.light ?? '',
    water: like?.water ?? '',
    notes: '',
    products: [],
  };
}

/** A dose to begin with, counted the way the product is sold. */
export function newUse(product: Product) {
  const sold = dimensionOf(product.packs[0]?.unit ?? (product.form === 'liquid' ? 'mL' : 'g'));
  const unit: AmountUnit = sold === 'mass' ? 'g' : sold === 'volume' ? 'mL' : 'piece';
  return {
    productId: product.id as string,
    packId: '',
    amount: '',
    unit,
    solutionLPerUnit: '',
    timesPerUnit: '1',
  };
}

export function toContendersForm(plan: Plan): ContendersFormInput {
  return {
    treatments: plan.treatments.map((t) => ({
      ...t,
      products: t.products.map((u) => ({
        productId: u.productId,
        packId: u.packId ?? '',
        amount: String(u.amount),
        unit: u.unit,
        solutionLPerUnit: fieldText(u.solutionLPerUnit),
        timesPerUnit: String(u.timesPerUnit),
      })),
    })),
  };
}
