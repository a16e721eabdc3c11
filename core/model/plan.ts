import { z } from 'zod';
import { Area, Gradient, Position } from './area';
import { positionKey, reservedUse } from './positions';
import { Design, Rotation, blindings } from './design';
import { Grade } from './grade';
import { RoundId, TraitId, TreatmentId, TrialId, UnitId } from './ids';
import { MixingSetUp } from './mixingSetUp';
import { PlannedTask } from './task';
import { Product } from './product';
import { Trait } from './trait';
import { Factor, Treatment, matchings } from './treatment';

export * from './area';
export * from './design';
export * from './mixingSetUp';
export * from './trait';
export * from './treatment';

/** The experimental unit: what gets the treatment on its own, and the row of every analysis. */
export const Unit = z.object({
  id: UnitId,
  /** what stands on the label, e.g. LOG-08 */
  code: z.string().min(1).max(20),
  treatmentId: TreatmentId,
  /** block number from 1 (row of a Latin square, main plot); null where the design has no blocks */
  block: z.number().int().min(1).nullable(),
  /** column of a Latin square from 1, counted on over several squares; null in other designs */
  columnBlock: z.number().int().min(1).nullable(),
  /** what its main plot was given, in split plots */
  setting: z.string().max(60).nullable(),
  /** size at the start, in any unit the reviewer keeps to; for a check that the treatments began alike */
  startSize: z.number().min(0).nullable(),
  position: Position,
});
export type Unit = z.infer<typeof Unit>;

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

/**
 * What a trial asks:
 * - best: which is best
 * - any: does it do anything at all
 * - asGood: is the cheaper one as good as the other
 * - claim: does the label keep its word
 */
export const asks = ['best', 'any', 'asGood', 'claim'] as const;
export type Asks = (typeof asks)[number];

export const Plan = z
  .object({
    id: TrialId,
    /** the question, which is also the trial's title */
    question: z.string().trim().min(1, 'Write the question.').max(200),
    /** what kind of question it is; left out: which is best */
    asks: z.enum(asks).optional(),
    /** a second question, looked at on the side: exploratory, never decisive */
    alsoAsked: z.string().trim().max(300),
    /** the protocol the plan was filled from; null for a blank one */
    protocolId: z.string().max(60).nullable(),
    /** three capital letters that start every unit's code */
    code: z.string().regex(/^[A-Z]{3}$/, 'Three capital letters.'),
    crop: z.string().trim().max(120),
    /** what one experimental unit is called: tray, pot, bed … */
    unitNoun: z.string().trim().min(1, 'Name the unit: tray, pot, bed …').max(30),
    prediction: z.string().trim().max(1000),
    finishingRule: z.string().trim().max(1000),
    /** what counts as winning, in words */
    winning: z.string().trim().max(1000),
    /** who scores and measures */
    scorer: z.string().trim().max(120),
    startDate: z.iso.date('A whole day, such as 2026-03-01.'),
    /** ISO 4217 code the cost is shown in */
    currency: z.string().regex(/^[A-Z]{3}$/, 'Use the three-letter code, such as EUR.'),
    primaryTraitId: TraitId.nullable(),
    smallestDifference: SmallestDifference.nullable(),
    /** unit-to-unit spread of the primary trait that is reckoned with, per cent; null: not said */
    cvPercent: z.number().positive('More than 0 %.').max(200).nullable(),
    traits: z.array(Trait),
    rounds: z.array(Round),
    /** what picked fruit is sorted into; left out: the usual grades */
    grades: z.array(Grade).min(1).max(20).optional(),
    /** what is to be done on which day, beside rounds and mixing; left out: nothing was planned */
    tasks: z.array(PlannedTask).max(200).optional(),
    treatments: z.array(Treatment),
    /** ids as the plan lists them, where `treatments` stand in the order of their letters; never stored */
    listed: z.array(TreatmentId).optional(),
    /** factors whose levels the treatments combine; empty for a plain comparison */
    factors: z.array(Factor).max(4),
    matchedOn: z.enum(matchings),
    /** whole systems are compared (medium, container and feed together) and said so */
    wholeSystem: z.boolean(),
    /** equals are compared, none is a control (containers, seed lots, supports); left out: there is one */
    peers: z.literal(true).optional(),
    /**
     * what stands in one area (tent, tank, reservoir) got its treatment together, so that the area is the unit and what
     * stands in it are samples; or each got its own. Left out: not said
     */
    unitsShare: z.enum(['place', 'nothing']).optional(),
    /** several crops inside each unit, the second factor; empty for one crop */
    cropsWithin: z.array(z.string().trim().min(1).max(60)).max(20),
    blinding: z.enum(blindings),
    /** sizes are typed and shown in inches, feet, ounces and gallons; left out: cm, g and L */
    inches: z.literal(true).optional(),
    unitShape: z.enum(['rectangle', 'round']),
    unitWidthCm: z.number().positive('More than 0 cm.').nullable(),
    unitDepthCm: z.number().positive('More than 0 cm.').nullable(),
    areas: z.array(Area),
    gradient: Gradient.nullable(),
    design: Design.nullable(),
    rotation: Rotation.nullable(),
    /** plants kept aside to replace early failures */
    spares: z.number().int().min(0).max(10_000),
    /** smallest step of the scale the doses are weighed on, g; null: not said */
    scaleStepG: z.number().positive('More than 0 g.').max(1000).nullable(),
    mixing: MixingSetUp,
    /** findings of the fairness audit that are accepted, with the reason the review gives */
    accepted: z.array(
      z.object({ ruleId: z.string().max(60), reason: z.string().trim().min(1, 'Say why.').max(500) }),
    ),
    units: z.array(Unit),
    /** the trial this one repeats with what was learned */
    retestOf: TrialId.optional(),
    /** a copy for whoever scores: contenders go by their codes, and what would give them away isn't in it */
    namesLeftOut: z.literal(true).optional(),
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
    const usedIds = new Set<string>();
    plan.units.forEach((u, i) => {
      if (!known.treatment.has(u.treatmentId)) issue('An unknown treatment.', ['units', i, 'treatmentId']);
      const area = known.area.get(u.position.areaId);
      if (!area || u.position.row >= area.rows || u.position.column >= area.columns) {
        issue('A position outside its area.', ['units', i, 'position']);
      }
      if (area && reservedUse(area, u.position.row, u.position.column)) {
        issue('A unit on a position that is blocked or a guard.', ['units', i, 'position']);
      }
      const key = positionKey(u.position);
      if (usedIds.has(key)) issue('Two units at one position.', ['units', i, 'position']);
      usedIds.add(key);
    });
  });
export type Plan = z.infer<typeof Plan>;
