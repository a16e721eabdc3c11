import { z } from 'zod';
import { layOut, movesFor } from '~core/design/layOut';
import { describeLayoutError } from '~core/design/randomise';
import { type AreaId, AreaId as AreaIdSchema, UnitId, newId } from '~core/model/ids';
import { Position, areaKinds } from '~core/model/plan';
import { missingForSeal } from '~core/model/seal';
import { type ActionResult, fieldErrors, optionalNumber, typedNumber } from '../../form/schemaFields';
import { appendEntries, loadTrial, savePlan, sealPlan, undoPlan } from '../../store/trials';

const AreaForm = z.object({
  intent: z.literal('areas'),
  areas: z
    .array(
      z.object({
        id: AreaIdSchema,
        name: z.string().trim().min(1, 'Give the place a name.').max(80),
        kind: z.enum(areaKinds),
        rows: typedNumber('How many?').pipe(
          z.number().int('Whole rows.').min(1, 'At least 1.').max(40, 'Up to 40.'),
        ),
        columns: typedNumber('How many?').pipe(
          z.number().int('Whole columns.').min(1, 'At least 1.').max(40, 'Up to 40.'),
        ),
        widthCm: optionalNumber().pipe(z.number().positive('More than 0 cm.').nullable()),
        depthCm: optionalNumber().pipe(z.number().positive('More than 0 cm.').nullable()),
      }),
    )
    .min(1, 'At least one place.'),
});
export type AreaFormInput = z.input<typeof AreaForm>;

const DesignForm = z.object({
  intent: z.literal('design'),
  kind: z.enum(['crd', 'rcbd', 'hand']),
  replicates: typedNumber('How many?').pipe(
    z.number().int('Whole number.').min(1, 'At least 1.').max(200, 'Up to 200.'),
  ),
  seed: typedNumber('Give a whole number.').pipe(
    z.number().int('A whole number.').min(0).max(0xffffffff, 'Up to 4294967295.'),
  ),
});
export type DesignFormInput = z.input<typeof DesignForm>;

const MoveForm = z.object({
  intent: z.literal('move'),
  unitId: UnitId,
  to: Position,
  reason: z.string().max(500),
});
const Simple = z.object({ intent: z.enum(['undo', 'seal', 'breakSeal']) });

export const emptyArea = (n: number) => ({
  id: newId<AreaId>() as string,
  name: n === 1 ? 'Shelf' : `Level ${n}`,
  kind: 'shelf' as const,
  rows: '2',
  columns: '5',
  widthCm: '',
  depthCm: '',
});

const sealedError: ActionResult = { errors: { intent: 'The plan is sealed.' } };

/** Everything the Layout room can do to a trial. */
export async function layoutAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const parsed = z.discriminatedUnion('intent', [AreaForm, DesignForm, MoveForm, Simple]).safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const form = parsed.data;
  switch (form.intent) {
    case 'areas': {
      const { areas } = form;
      const fits = (p: Position) =>
        areas.some((a) => a.id === p.areaId && p.row < a.rows && p.column < a.columns);
      let lost = 0;
      const saved = await savePlan(trialId, (plan) => {
        const units = plan.units.filter((u) => fits(u.position));
        lost = plan.units.length - units.length;
        // A layout with holes isn't the one that was randomised: it is drawn anew.
        return { ...plan, areas, units: lost > 0 ? [] : units };
      });
      if (!saved.ok) return sealedError;
      return {
        saved: true,
        message: lost > 0 ? 'The places changed; randomise again.' : 'The places are saved.',
      };
    }
    case 'design': {
      const { kind, replicates, seed } = form;
      const { row } = await loadTrial(trialId);
      const units = layOut(row.plan, { kind, replicates, seed });
      if (!units.ok) return { errors: { replicates: describeLayoutError(units.error) } };
      const saved = await savePlan(trialId, (plan) => ({
        ...plan,
        design: { kind, replicates, seed },
        units: units.value,
      }));
      return saved.ok ? { saved: true, message: 'Units are laid out.' } : sealedError;
    }
    case 'move': {
      const { state } = await loadTrial(trialId);
      const moves = movesFor(state.positions, form.unitId, form.to);
      if (moves.length === 0) return { saved: true, message: 'It stands there already.' };
      if (state.seal) {
        await appendEntries(trialId, [{ kind: 'move', moves, reason: form.reason }]);
        return { saved: true, message: 'Moved, and written into the log.' };
      }
      await savePlan(trialId, (plan) => ({
        ...plan,
        units: plan.units.map((u) => ({
          ...u,
          position: moves.find((m) => m.unitId === u.id)?.to ?? u.position,
        })),
      }));
      return { saved: true, message: 'Moved.' };
    }
    case 'undo':
      await undoPlan(trialId);
      return { saved: true, message: 'Taken back.' };
    case 'seal': {
      const { row } = await loadTrial(trialId);
      const missing = missingForSeal(row.plan);
      if (missing.length > 0)
        return { errors: { seal: `Still missing: ${missing.map((m) => m.what).join('; ')}.` } };
      await sealPlan(trialId);
      return { saved: true, message: 'The plan is sealed.' };
    }
    case 'breakSeal': {
      const { state } = await loadTrial(trialId);
      if (!state.seal) return { saved: true, message: 'There is no seal.' };
      if (state.observations.length > 0) {
        return { errors: { seal: 'Values are logged already: the seal stays, and changes go to the log.' } };
      }
      await appendEntries(trialId, [
        {
          kind: 'correction',
          supersedes: state.seal.entryId,
          replacement: null,
          reason: 'seal broken before the first value',
        },
      ]);
      return { saved: true, message: 'The seal is broken; the log keeps both.' };
    }
  }
}
