import { z } from 'zod';
import { UnitId } from '~core/model/ids';
import { Balance, Position, designKinds } from '~core/model/plan';
import { nameList, typedNumber } from '../../form/schemaFields';

/** What the Layout room's forms and deeds send, by `intent`. */

const wholeFrom1 = (most: number) =>
  typedNumber('How many?').pipe(
    z.number().int('Whole number.').min(1, 'At least 1.').max(most, `Up to ${most}.`),
  );

const seed = typedNumber('Give a whole number.').pipe(
  z.number().int('A whole number.').min(0).max(0xffffffff, 'Up to 4294967295.'),
);

export const DesignForm = z.object({
  intent: z.literal('design'),
  kind: z.enum(designKinds),
  replicates: wholeFrom1(200),
  /** how many stand in an area that has to be made, where all of an area share */
  inEach: wholeFrom1(40).optional(),
  seed,
  /** settings of split plots, one a line or between commas */
  settings: nameList(12, 'Up to 12 settings.'),
});
export type DesignFormInput = z.input<typeof DesignForm>;

export const BalancedForm = z.object({
  intent: z.literal('balanced'),
  kind: z.enum(designKinds),
  replicates: z.number().int().min(1).max(200),
  seed: z.number().int().min(0).max(0xffffffff),
  settings: z.array(z.string()),
  balance: Balance,
  /** the plan as it was when the draws began */
  seenPlanRev: z.number().int(),
});

export const MoveForm = z.object({
  intent: z.literal('move'),
  unitId: UnitId,
  to: Position,
  reason: z.string().max(500),
});

export const ReserveForm = z.object({ intent: z.literal('reserve'), position: Position });

export const ShareForm = z.object({ intent: z.literal('share'), unitsShare: z.enum(['place', 'nothing']) });
export const TurnForm = z.object({ intent: z.literal('turn'), number: z.number().int().min(1) });
