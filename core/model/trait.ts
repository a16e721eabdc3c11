import { z } from 'zod';
import { TraitId } from './ids';
import { type TraitKind, traitKinds } from './traitKinds';

export { type TraitKind, kindOf, traitKinds } from './traitKinds';

const names = Object.keys(traitKinds) as TraitKind[];

/** What a unit's figure can be divided by: plants, m² of ground, litres of water, kWh, mol of light, g of nitrogen, days. */
export const pers = ['plant', 'area', 'water', 'energy', 'light', 'nitrogen', 'day'] as const;

/**
 * How several rounds of a unit make one figure:
 * - last: the last round's
 * - sum: all picks added
 * - gain: how much it grew, the last round's less the first's
 * - area: the mean over time, which is the area under its curve over the days from the first round to the last
 * - growth: relative growth rate, per cent a day
 */
export const summaries = ['last', 'sum', 'gain', 'area', 'growth'] as const;
export type TraitSummary = (typeof summaries)[number];

const Direction = z.enum(['higher', 'lower', 'band']);
type Direction = z.infer<typeof Direction>;

/** How a trait is taken; each kind is a file in `traitKinds`. */
const TraitKindName = z.enum(names);

/** One step of a written scale: what has to be seen for this figure. */
export const ScaleStep = z.object({
  value: z.number('Give the step as a number.').int('Whole steps.').min(0, 'Not below 0.').max(100),
  text: z.string().trim().max(200),
});
export type ScaleStep = z.infer<typeof ScaleStep>;

export const Trait = z
  .object({
    id: TraitId,
    name: z.string().trim().min(1, 'Give the trait a name.').max(80),
    /** as printed behind a figure, e.g. g, cm, leaves */
    unit: z.string().trim().max(20),
    kind: TraitKindName,
    direction: Direction,
    /** the wanted band when direction is `band` */
    bandLow: z.number().nullable(),
    bandHigh: z.number().nullable(),
    decimals: z.number().int('Whole number.').min(0).max(4, 'Up to 4.'),
    /** values outside are questioned on entry; null: no limit */
    plausibleLow: z.number().nullable(),
    plausibleHigh: z.number().nullable(),
    /** samples measured inside each unit (of each crop within it) and averaged */
    samplesPerUnit: z.number().int('Whole number.').min(1, 'At least 1.').max(200),
    /** how several values of a unit make one; the compared summary is chosen beforehand */
    summary: z.enum(summaries),
    /** what a unit's figure is divided by before units are compared; left out: nothing, it is per unit */
    per: z.enum(pers).optional(),
    /** with several crops in a unit: taken of the unit, not of each crop (strength and pH of a tank) */
    wholeUnit: z.literal(true).optional(),
    /** can be taken though the plant died: looks of a support, roots of what is left */
    evenDead: z.literal(true).optional(),
    /** change between two weighings under which a dry weight is constant, per cent; left out: the usual 1 */
    constantPercent: z.number().positive('More than 0 %.').max(20, 'Up to 20 %.').optional(),
    /** what it is, whatever it is called: how tall the plants are */
    role: z.literal('height').optional(),
    /** counted in half steps, as leaves that are still unfolding are */
    halfSteps: z.literal(true).optional(),
    /** what counts and what doesn't, as it is shown while counting */
    countsAs: z.string().trim().max(300).optional(),
    /** ranks by eye are made within each block, not over all units */
    withinBlocks: z.literal(true).optional(),
    /** a unit that died counts as 0; left out: it isn't in the figures */
    deadIsZero: z.literal(true).optional(),
    /** n of a `ratio`; null for the other kinds */
    outOf: z.number().int('Whole number.').min(1, 'At least 1.').max(10_000).nullable(),
    /** the steps of a `score`, lowest first; empty for the other kinds */
    scale: z.array(ScaleStep).max(20),
  })
  .refine(
    (t) => t.direction !== 'band' || (t.bandLow !== null && t.bandHigh !== null && t.bandLow < t.bandHigh),
    { message: 'A wanted band needs a lower and a higher end.', path: ['bandLow'] },
  )
  .refine((t) => t.kind !== 'ratio' || t.outOf !== null, {
    message: 'Say out of how many.',
    path: ['outOf'],
  });
export type Trait = z.infer<typeof Trait>;
