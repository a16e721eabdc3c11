import { z } from 'zod';

/** What the points of a heading are made from. */
const HeadingFrom = z.discriminatedUnion('kind', [
  /** a trait's figure; its own direction says what is better */
  z.object({ kind: z.literal('trait'), traitId: z.string().min(1) }),
  /** how little units of a contender differ in a trait */
  z.object({ kind: z.literal('evenness'), traitId: z.string().min(1) }),
  /** what a blind panel scored or ranked */
  z.object({ kind: z.literal('panel'), sessionId: z.string().min(1), thing: z.string().min(1) }),
  /** products for one unit: less is better */
  z.object({ kind: z.literal('cost') }),
  /** the reviewer's own points, each with its reason */
  z.object({
    kind: z.literal('own'),
    points: z.record(
      z.string(),
      z.object({
        points: z.number('Points from 0 to 10.').min(0, 'From 0.').max(10, 'To 10.'),
        reason: z.string().trim().max(300),
      }),
    ),
  }),
]);
type HeadingFrom = z.infer<typeof HeadingFrom>;

/** A heading of the scorecard: what it counts, how much it weighs, and how a figure becomes points. */
export const CardHeading = z.object({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'Name the heading.').max(60),
  weight: z.number().min(0).max(100),
  from: HeadingFrom,
  /** the figures that get 0 and 10; left out: the control (or the worst) gets 0, the best 10 */
  scale: z
    .object({ zero: z.number('Give the figure for 0.'), ten: z.number('Give the figure for 10.') })
    .refine((s) => s.zero !== s.ten, 'The figures for 0 and for 10 must differ.')
    .optional(),
});
export type CardHeading = z.infer<typeof CardHeading>;

/** A label's claim set against a trait. */
export const SetClaim = z.object({
  claimId: z.string().min(1),
  productId: z.string().min(1),
  /** the contender whose dose is the product's own */
  treatmentId: z.string().min(1),
  /** null: not tested here */
  traitId: z.string().min(1).nullable(),
  /** what is claimed of the trait's figure */
  direction: z.enum(['more', 'less']),
  /** size that is claimed, per cent of what it is held against; for “so many per cent of all” the share itself; null: none */
  percent: z.number().min(0).max(10_000).nullable(),
  /** the label says “up to” */
  upTo: z.boolean(),
  /** of k of n: the share itself is claimed (99 % pure), nothing is held against it */
  absolute: z.boolean(),
  /** what it is held against; left out: the trial's control */
  againstId: z.string().min(1).optional(),
  /** the round by which it should be so; left out: the trait's own summary */
  roundId: z.string().min(1).optional(),
});
export type SetClaim = z.infer<typeof SetClaim>;

/** Something a result took beside the products: a container, a device, medium, seed, wear. */
export const CostLine = z.object({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'Name what it is.').max(80),
  /** price, minor units of the plan's currency */
  minor: z.number().int().min(0).max(100_000_000),
  /** units of the trial that share it; 1: each unit has one */
  sharedBy: z.number().int('Whole units.').min(1, 'At least one.').max(10_000),
  /** trials or seasons it lasts; 1: it is used up */
  seasons: z.number().int('Whole seasons.').min(1, 'At least one.').max(200),
  /** contenders it is for; empty: all */
  treatmentIds: z.array(z.string()).max(100),
});
export type CostLine = z.infer<typeof CostLine>;

/** What products cost somewhere else, or at another time. */
export const PriceSet = z.object({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'Name the place.').max(60),
  /** the day the prices were seen; null: not said */
  seenOn: z.iso.date('A whole day, such as 2026-03-01.').nullable(),
  /** ISO 4217 code the prices are in; left out: the plan's. It is turned with the plan's rate. */
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'Use the three-letter code, such as EUR.')
    .optional(),
  /** by product: price of its first pack, minor units of that currency */
  prices: z.record(z.string(), z.number().int().min(0).max(100_000_000)),
});
export type PriceSet = z.infer<typeof PriceSet>;

export const LimitFor = z.enum(['unit', 'result', 'extra']);
export type LimitFor = z.infer<typeof LimitFor>;

/** What is counted of a result's cost beside its products. */
export const CostSettings = z.object({
  lines: z.array(CostLine).max(60),
  /** price of a litre of water, minor units; null: not counted */
  waterMinorPerL: z.number().min(0).nullable(),
  /** price of a kWh, minor units; null: not counted */
  kWhMinor: z.number().min(0).nullable(),
  /** minutes of work on one unit over the whole trial, and what an hour is worth; null: not counted */
  minutesPerUnit: z.number().min(0).max(100_000).nullable(),
  hourMinor: z.number().min(0).nullable(),
  /** minutes as they were logged, task by task, in place of the figure above; left out: no */
  workAsLogged: z.boolean().optional(),
  /** most that it may cost, minor units, set beforehand; null: no limit */
  limitMinor: z.number().min(0).nullable(),
  /** what the limit is for: a unit, what the trait counts, or one more of it than the control gave; left out: a unit */
  limitFor: LimitFor.optional(),
  /** prices of other places; left out: none */
  priceSets: z.array(PriceSet).max(12).optional(),
});
export type CostSettings = z.infer<typeof CostSettings>;

export const noCosts: CostSettings = {
  lines: [],
  waterMinorPerL: null,
  kWhMinor: null,
  minutesPerUnit: null,
  hourMinor: null,
  limitMinor: null,
};
