import { z } from 'zod';
import { PackId, ProductId, TreatmentId } from './ids';
import { AmountUnit } from './product';

export const Role = z.enum(['untreated', 'base', 'reference', 'test']);
export type Role = z.infer<typeof Role>;

/** What a role is called on screen and in the review. */
export const roleNames: Record<Role, string> = {
  untreated: 'untreated control',
  base: 'base control',
  reference: 'reference',
  test: 'product tested',
};

/**
 * How a product is given where neither in the day's water nor as it is:
 * after: in a solution of its own, after the other, never joined · spray: sprayed on · medium: mixed into the medium
 */
export const ways = ['after', 'spray', 'medium'] as const;
export type Way = (typeof ways)[number];

/** How something is given, where it isn't in the day's water. */
export const wayWords: Record<Way, string> = {
  after: 'after the other, never joined',
  spray: 'sprayed on',
  medium: 'mixed into the medium',
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
  /** the volume as it was written, e.g. 0.6 gal; left out when typed in litres */
  solutionText: z.string().trim().max(60).optional(),
  /** how many times each unit gets it in the whole trial */
  timesPerUnit: z.number('Say how often.').int('Whole times.').min(1, 'At least once.').max(10_000),
  /** the dose as it was written, e.g. 1 tsp/gal; empty when typed as a figure and a unit */
  rateText: z.string().trim().max(120),
  /** day of the trial on which this use begins; null: from the start */
  fromDay: z.number().int('Whole days.').min(0, 'Not before the start.').max(2000).nullable(),
  /** days from one time to the next; null: on no fixed days */
  everyDays: z.number().int('Whole days.').min(1, 'At least a day.').max(365).nullable(),
  /** strength, per cent of the dose: 50 for seedlings on half strength */
  strengthPercent: z
    .number('Give the share of the rate.')
    .positive('More than 0 %.')
    .max(1000, 'Up to 1000 %.'),
  /** dissolved apart from the other parts, in `solutionLPerUnit` of its own: the waters add up when they meet */
  apart: z.literal(true).optional(),
  /** left out: in the day's water where it has a solution, else as it is */
  way: z.enum(ways).optional(),
  /** when in the crop's life, in words: seedling, from day 10, flowering; empty: throughout */
  stage: z.string().trim().max(80),
});
export type ProductUse = z.infer<typeof ProductUse>;

const words = z.string().trim().max(200);
const measure = z.number().positive('More than 0.').nullable();

/** The “same everything else” list: what should be alike for all treatments but the thing compared. */
export const Conditions = z.object({
  crop: words,
  variety: words,
  seedLot: words,
  startSize: words,
  mediumLot: words,
  handling: words,
  containerVolumeL: measure,
  /** plants, plugs or cuttings in one experimental unit */
  plantsPerUnit: measure,
  areaPerUnitCm2: measure,
  seedWeightG: measure,
  /** mass of a thousand seeds, g; with the seed weight it gives the seed count */
  thousandSeedG: measure,
  /** power of the lamp over one unit, W */
  lampW: measure.optional(),
  /** hours a day it burns */
  lampHours: measure.optional(),
  /** photon flux at the canopy, µmol m⁻² s⁻¹ */
  ppfd: measure.optional(),
  /** day of the trial on which this treatment ends; null: with all the others */
  finishDay: z.number().int('Whole days.').min(0, 'Not before the start.').max(2000).nullable(),
  /** whether the medium carries a feed of its own */
  mediumFed: z.boolean(),
});
export type Conditions = z.infer<typeof Conditions>;

export const noConditions: Conditions = {
  crop: '',
  variety: '',
  seedLot: '',
  startSize: '',
  mediumLot: '',
  handling: '',
  containerVolumeL: null,
  plantsPerUnit: null,
  areaPerUnitCm2: null,
  seedWeightG: null,
  thousandSeedG: null,
  finishDay: null,
  mediumFed: false,
};

/** Amount of a dose after its strength. @example strengthOf 50 %: 5 mL is 2.5 mL */
export const doseAmount = (use: Pick<ProductUse, 'amount' | 'strengthPercent'>): number =>
  (use.amount * use.strengthPercent) / 100;

export const Treatment = z.object({
  id: TreatmentId,
  name: z.string().trim().min(1, 'Give the treatment a name.').max(80),
  role: Role,
  products: z.array(ProductUse),
  /** days on which the units get plain water in place of feed */
  flushDays: z.array(z.number().int().min(0).max(2000)).max(200),
  container: words,
  medium: words,
  light: words,
  system: words,
  water: words,
  conditions: Conditions,
  /** level of each factor, by the factor's name, where the treatments form a factorial */
  levels: z.record(z.string(), z.string()),
  /** change of the primary trait against the control that is expected, per cent; null: none written */
  expectedPercent: z.number().min(-100, 'Not below −100 %.').max(10_000, 'Up to 10,000 %.').nullable(),
  notes: z.string().trim().max(2000),
});
export type Treatment = z.infer<typeof Treatment>;

/** A factor of a factorial and its levels, first level the plain one. */
export const Factor = z.object({
  name: z.string().trim().min(1, 'Name the factor.').max(60),
  levels: z.array(z.string().trim().min(1).max(60)).min(2, 'At least two levels.').max(12),
});
export type Factor = z.infer<typeof Factor>;

/** What was made alike between the products' doses; a school of practice each. */
export const matchings = ['label', 'element', 'strength', 'money', 'asIs'] as const;
export type Matching = (typeof matchings)[number];
export const matchingNames: Record<Matching, string> = {
  label: 'each at its label rate',
  element: 'equal nitrogen (or another element)',
  strength: 'equal strength (EC)',
  money: 'equal money',
  asIs: 'nothing: each as it comes',
};
