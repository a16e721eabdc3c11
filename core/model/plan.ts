import { z } from 'zod';
import { AreaId, PackId, ProductId, RoundId, TraitId, TreatmentId, TrialId, UnitId } from './ids';
import { AmountUnit, Product } from './product';

export const Role = z.enum(['untreated', 'base', 'reference', 'test']);
export type Role = z.infer<typeof Role>;

/** What a role is called on screen and in the review. */
export const roleNames: Record<Role, string> = {
  untreated: 'untreated control',
  base: 'base control',
  reference: 'reference',
  test: 'test',
};

/** A product as one treatment uses it: how much of it each unit gets at a time, and how often. */
export const ProductUse = z.object({
  productId: ProductId,
  /** the pack the price is taken from; null takes the product's first pack */
  packId: PackId.nullable(),
  amount: z.number('Give the dose as a number.').positive('A dose is more than nothing.'),
  unit: AmountUnit,
  /** dose per litre of solution when a number; the amount goes to the unit as it is when null */
  solutionLPerUnit: z.number().positive('More than 0 L.').nullable(),
  /** how many times each unit gets it in the whole trial */
  timesPerUnit: z.number('Say how often.').int('Whole times only.').min(1, 'At least once.').max(10_000),
});
export type ProductUse = z.infer<typeof ProductUse>;

export const Treatment = z.object({
  id: TreatmentId,
  name: z.string().trim().min(1, 'Give the treatment a name.').max(80),
  role: Role,
  products: z.array(ProductUse),
  /** the “same everything else” of this treatment, in words */
  container: z.string().trim().max(200),
  medium: z.string().trim().max(200),
  light: z.string().trim().max(200),
  water: z.string().trim().max(200),
  notes: z.string().trim().max(2000),
});
export type Treatment = z.infer<typeof Treatment>;

export const areaKinds = ['shelf', 'bench', 'bed'] as const;

/** A grid of positions seen from above; rows run away from the viewer, columns left to right. */
export const Area = z.object({
  id: AreaId,
  name: z.string().trim().min(1, 'Give the place a name.').max(80),
  kind: z.enum(areaKinds),
  rows: z.number('Whole rows.').int('Whole rows.').min(1, 'At least one row.').max(40, 'Up to 40 rows.'),
  columns: z
    .number('Whole columns.')
    .int('Whole columns.')
    .min(1, 'At least one column.')
    .max(40, 'Up to 40 columns.'),
  widthCm: z.number().positive('More than 0 cm.').nullable(),
  depthCm: z.number().positive('More than 0 cm.').nullable(),
});
export type Area = z.infer<typeof Area>;

export const Position = z.object({
  areaId: AreaId,
  /** 0 at the back (top of the drawing) */
  row: z.number().int().min(0),
  /** 0 at the left */
  column: z.number().int().min(0),
});
export type Position = z.infer<typeof Position>;

/** The experimental unit: what gets the treatment on its own, and the row of every analysis. */
export const Unit = z.object({
  id: UnitId,
  /** what stands on the label, e.g. LOG-08 */
  code: z.string().min(1).max(20),
  treatmentId: TreatmentId,
  /** block number from 1; null where the design has no blocks */
  block: z.number().int().min(1).nullable(),
  position: Position,
});
export type Unit = z.infer<typeof Unit>;

export const Direction = z.enum(['higher', 'lower', 'band']);
export type Direction = z.infer<typeof Direction>;

export const Trait = z
  .object({
    id: TraitId,
    name: z.string().trim().min(1, 'Give the trait a name.').max(80),
    /** as printed behind a figure, e.g. g, cm, leaves */
    unit: z.string().trim().max(20),
    /** weighing: taken in Weigh-in as gross minus tare, in grams; number and count: typed in Rounds */
    kind: z.enum(['number', 'count', 'weighing']),
    direction: Direction,
    /** the wanted band when direction is `band` */
    bandLow: z.number().nullable(),
    bandHigh: z.number().nullable(),
    decimals: z.number().int().min(0).max(4),
    /** values outside are questioned on entry; null: no limit */
    plausibleLow: z.number().nullable(),
    plausibleHigh: z.number().nullable(),
    /** samples measured inside each unit and averaged */
    samplesPerUnit: z.number().int().min(1).max(200),
    /** how several values of a unit make one: the last round's, or the sum of all picks */
    summary: z.enum(['last', 'sum']),
  })
  .refine(
    (t) => t.direction !== 'band' || (t.bandLow !== null && t.bandHigh !== null && t.bandLow < t.bandHigh),
    {
      message: 'A wanted band needs a lower and a higher end.',
      path: ['bandLow'],
    },
  );
export type Trait = z.infer<typeof Trait>;

export const Round = z.object({
  id: RoundId,
  name: z.string().trim().min(1, 'Give the round a name.').max(80),
  /** days after the start */
  day: z.number('Give the day as a number.').int('Whole days.').min(0, 'Not before the start.').max(2000),
  traitIds: z.array(TraitId).min(1, 'Say what is measured in this round.'),
});
export type Round = z.infer<typeof Round>;

export const SmallestDifference = z.object({
  kind: z.enum(['absolute', 'percent']),
  /** in the primary trait's unit, or per cent of the control's mean */
  value: z.number('Give a number.').positive('A difference that matters is more than 0.'),
});

export const Design = z.object({
  /** completely randomised; randomised complete blocks; placed by hand */
  kind: z.enum(['crd', 'rcbd', 'hand']),
  replicates: z.number().int().min(1).max(200),
  seed: z.number().int().min(0).max(0xffffffff),
});
export type Design = z.infer<typeof Design>;

export const Plan = z
  .object({
    id: TrialId,
    /** the question, which is also the trial's title */
    question: z.string().trim().min(1, 'Write the question.').max(200),
    /** three capital letters that start every unit's code */
    code: z.string().regex(/^[A-Z]{3}$/, 'Three capital letters.'),
    crop: z.string().trim().max(120),
    /** what one experimental unit is called: tray, pot, bed … */
    unitNoun: z.string().trim().min(1, 'Name the unit: tray, pot, bed …').max(30),
    prediction: z.string().trim().max(1000),
    finishingRule: z.string().trim().max(1000),
    startDate: z.iso.date('Use a date such as 2026-03-01.'),
    /** ISO 4217 code the cost is shown in */
    currency: z.string().regex(/^[A-Z]{3}$/, 'Use the three-letter code, such as EUR.'),
    primaryTraitId: TraitId.nullable(),
    smallestDifference: SmallestDifference.nullable(),
    traits: z.array(Trait),
    rounds: z.array(Round),
    treatments: z.array(Treatment),
    areas: z.array(Area),
    design: Design.nullable(),
    units: z.array(Unit),
    /** copies of the library's products as they stood when the plan was last saved: price and claims included */
    products: z.array(Product),
  })
  .superRefine((plan, ctx) => {
    const known = {
      treatment: new Set<string>(plan.treatments.map((t) => t.id)),
      area: new Map(plan.areas.map((a) => [a.id, a])),
      trait: new Set<string>(plan.traits.map((t) => t.id)),
      product: new Set<string>(plan.products.map((p) => p.id)),
    };
    const issue = (message: string, path: (string | number)[]) =>
      ctx.addIssue({ code: 'custom', message, path });
    if (plan.primaryTraitId && !known.trait.has(plan.primaryTraitId)) {
      issue('The primary trait isn’t among the traits.', ['primaryTraitId']);
    }
    plan.rounds.forEach((r, i) => {
      if (r.traitIds.some((t) => !known.trait.has(t))) issue('An unknown trait.', ['rounds', i, 'traitIds']);
    });
    plan.treatments.forEach((t, i) => {
      if (t.products.some((p) => !known.product.has(p.productId))) {
        issue('An unknown product.', ['treatments', i, 'products']);
      }
    });
    const taken = new Set<string>();
    plan.units.forEach((u, i) => {
      if (!known.treatment.has(u.treatmentId)) issue('An unknown treatment.', ['units', i, 'treatmentId']);
      const area = known.area.get(u.position.areaId);
      if (!area || u.position.row >= area.rows || u.position.column >= area.columns) {
        issue('A position outside its area.', ['units', i, 'position']);
      }
      const key = positionKey(u.position);
      if (taken.has(key)) issue('Two units at one position.', ['units', i, 'position']);
      taken.add(key);
    });
  });
export type Plan = z.infer<typeof Plan>;

/** A position as a key of maps and sets. */
export const positionKey = (p: Position): string => `${p.areaId}/${p.row}/${p.column}`;

/** The control that others are compared with: untreated first, else base, else the reference. */
export function controlOf(plan: Pick<Plan, 'treatments'>): Treatment | null {
  for (const role of ['untreated', 'base', 'reference'] as const) {
    const found = plan.treatments.find((t) => t.role === role);
    if (found) return found;
  }
  return null;
}
