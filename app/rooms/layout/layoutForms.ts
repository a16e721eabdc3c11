import { lengthField, sizeUnitsOf } from '~core/quantity/sizeText';
import { z } from 'zod';
import { type AreaId, AreaId as AreaIdSchema, UnitId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { type AreaKind, Balance, Plan, Position, Rotation, areaKinds, designKinds } from '~core/model/plan';
import { areaName } from '~core/schedule/withRoom';
import { protocolOf } from '~core/schedule/protocols';
import { optionalSize, typedNumber } from '../../form/schemaFields';

/** What the Layout room's forms and deeds send, by `intent`. */

const wholeFrom1 = (most: number) =>
  typedNumber('How many?').pipe(
    z.number().int('Whole number.').min(1, 'At least 1.').max(most, `Up to ${most}.`),
  );
const lengthCm = () => optionalSize('length');

export const AreaForm = z.object({
  intent: z.literal('areas'),
  inches: z.boolean().default(false),
  unitShape: Plan.shape.unitShape,
  unitWidthCm: lengthCm(),
  unitDepthCm: lengthCm(),
  spares: typedNumber('How many? 0 for none.').pipe(z.number().int('Whole number.').min(0).max(10_000)),
  areas: z
    .array(
      z.object({
        id: AreaIdSchema,
        name: z.string().trim().min(1, 'Give the area a name.').max(80),
        kind: z.enum(areaKinds),
        rows: typedNumber('How many?').pipe(
          z.number().int('Whole rows.').min(1, 'At least 1.').max(40, 'Up to 40.'),
        ),
        columns: typedNumber('How many?').pipe(
          z.number().int('Whole columns.').min(1, 'At least 1.').max(40, 'Up to 40.'),
        ),
        widthCm: lengthCm(),
        depthCm: lengthCm(),
      }),
    )
    .min(1, 'At least one area.'),
});
export type AreaFormInput = z.input<typeof AreaForm>;

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
  settings: z
    .string()
    .max(800)
    .transform((text) => [...new Set(text.split(/[,\n]/).map((s) => s.trim()))].filter(Boolean))
    .pipe(z.array(z.string().max(60, 'Up to 60 letters each.')).max(12, 'Up to 12 settings.')),
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

export const RotationForm = z.object({
  everyDays: typedNumber('Every how many days?').pipe(Rotation.shape.everyDays),
  within: z.enum(['block', 'area', 'all', 'off']),
});

export const ShareForm = z.object({ intent: z.literal('share'), unitsShare: z.enum(['place', 'nothing']) });
export const TurnForm = z.object({ intent: z.literal('turn'), number: z.number().int().min(1) });

/** The kind of place that is usual for the kind of trial. */
export const usualKind = (plan: Pick<Plan, 'protocolId'>): AreaKind | undefined =>
  protocolOf(plan.protocolId)?.area;

/** The places of a plan as their form shows them; one to start from where there are none. */
export const toAreasForm = (
  plan: Pick<
    Plan,
    | 'id'
    | 'protocolId'
    | 'areas'
    | 'unitShape'
    | 'unitWidthCm'
    | 'unitDepthCm'
    | 'spares'
    | 'mixing'
    | 'inches'
  >,
): AreaFormInput => ({
  intent: 'areas',
  inches: plan.inches ?? false,
  unitShape: plan.unitShape,
  unitWidthCm: lengthField(plan.unitWidthCm, sizeUnitsOf(plan)),
  unitDepthCm: lengthField(plan.unitDepthCm, sizeUnitsOf(plan)),
  spares: String(plan.spares),
  areas:
    plan.areas.length > 0
      ? plan.areas.map((a) => ({
          id: a.id as string,
          name: a.name,
          kind: a.kind,
          rows: String(a.rows),
          columns: String(a.columns),
          widthCm: lengthField(a.widthCm, sizeUnitsOf(plan)),
          depthCm: lengthField(a.depthCm, sizeUnitsOf(plan)),
        }))
      : [emptyArea(1, usualKind(plan), `${plan.id}-area`)],
});

export const emptyArea = (n: number, kind: AreaKind = 'shelf', id: string = newId<AreaId>()) => ({
  id,
  name: areaName(kind, n),
  kind,
  rows: '2',
  columns: '5',
  widthCm: '',
  depthCm: '',
});
