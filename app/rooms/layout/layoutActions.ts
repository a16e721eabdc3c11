import type { z } from 'zod';
import { keyFits } from '~core/design/blinding';
import { layOut, movesFor } from '~core/design/layOut';
import { describeLayoutError } from '~core/design/randomise';
import { rotationPlan } from '~core/design/rotation';
import { type Plan, type Position, positionKey, reservedUse } from '~core/model/plan';
import { missingForSeal } from '~core/model/seal';
import { LABELS_TASK, turnTask } from '~core/schedule/tasks';
import { formatFigure } from '~core/quantity/format';
import { type ActionResult, fieldErrors } from '../../form/schemaFields';
import { appendEntries, loadTrial, savePlan, sealPlan, undoPlan } from '../../store/trials';
import { LayoutForm } from './layoutForms';

type Form = z.output<typeof LayoutForm>;
type FormOf<I extends Form['intent']> = Extract<Form, { intent: I }>;

const sealedError: ActionResult = { errors: { intent: 'The plan is sealed.' } };

async function change(
  trialId: string | undefined,
  message: string,
  to: (plan: Plan) => Plan,
): Promise<ActionResult> {
  const saved = await savePlan(trialId, to);
  return saved.ok ? { saved: true, message } : sealedError;
}

async function saveAreas(trialId: string | undefined, form: FormOf<'areas'>): Promise<ActionResult> {
  const { unitShape, unitWidthCm, unitDepthCm, spares } = form;
  let lost = 0;
  const saved = await savePlan(trialId, (plan) => {
    const areas = form.areas.map((a) => ({
      ...a,
      reserved: (plan.areas.find((old) => old.id === a.id)?.reserved ?? []).filter(
        (c) => c.row < a.rows && c.column < a.columns,
      ),
    }));
    const fits = (p: Position) => {
      const area = areas.find((a) => a.id === p.areaId);
      return area !== undefined && p.row < area.rows && p.column < area.columns;
    };
    const units = plan.units.filter((u) => fits(u.position));
    lost = plan.units.length - units.length;
    const gradient = plan.gradient && {
      ...plan.gradient,
      readings: plan.gradient.readings.filter((r) => fits(r.position)),
    };
    // A layout with holes isn't the one that was randomised: it is drawn anew.
    return {
      ...plan,
      unitShape,
      unitWidthCm,
      unitDepthCm,
      spares,
      areas,
      gradient,
      units: lost > 0 ? [] : units,
    };
  });
  if (!saved.ok) return sealedError;
  return {
    saved: true,
    message: lost > 0 ? 'The places changed; randomise again.' : 'The places are saved.',
  };
}

async function laidOut(trialId: string | undefined, design: Plan['design'] & object): Promise<ActionResult> {
  const { row } = await loadTrial(trialId);
  const units = layOut(row.plan, design);
  if (!units.ok) return { errors: { replicates: describeLayoutError(units.error) } };
  const message = design.balance
    ? `Laid out; treatment means lie ${formatFigure(design.balance.spreadPercent, 1)} % apart.`
    : 'Units are laid out.';
  return change(trialId, message, (plan) => ({ ...plan, design, units: units.value }));
}

async function moveUnit(trialId: string | undefined, form: FormOf<'move'>): Promise<ActionResult> {
  const { state, row } = await loadTrial(trialId);
  const area = row.plan.areas.find((a) => a.id === form.to.areaId);
  if (!area || reservedUse(area, form.to.row, form.to.column)) {
    return { errors: { to: 'That place is blocked or belongs to a guard.' } };
  }
  const moves = movesFor(state.positions, form.unitId, form.to);
  if (moves.length === 0) return { saved: true, message: 'It stands there already.' };
  if (state.seal) {
    await appendEntries(trialId, [{ kind: 'move', moves, reason: form.reason }]);
    return { saved: true, message: 'Moved, and written into the log.' };
  }
  return change(trialId, 'Moved.', (plan) => ({
    ...plan,
    units: plan.units.map((u) => ({
      ...u,
      position: moves.find((m) => m.unitId === u.id)?.to ?? u.position,
    })),
  }));
}

/** A free place becomes blocked, then a guard's, then free again. */
async function reserve(trialId: string | undefined, { position }: FormOf<'reserve'>): Promise<ActionResult> {
  const { row } = await loadTrial(trialId);
  if (row.plan.units.some((u) => positionKey(u.position) === positionKey(position))) {
    return { errors: { position: 'A unit stands there; move it first.' } };
  }
  const next = { none: 'blocked', blocked: 'guard', guard: null } as const;
  let said = '';
  const result = await change(trialId, '', (plan) => ({
    ...plan,
    areas: plan.areas.map((a) => {
      if (a.id !== position.areaId) return a;
      const use = next[reservedUse(a, position.row, position.column) ?? 'none'];
      said = use === 'blocked' ? 'Blocked.' : use === 'guard' ? 'A guard stands there.' : 'Free again.';
      const others = a.reserved.filter((c) => c.row !== position.row || c.column !== position.column);
      return {
        ...a,
        reserved: use ? [...others, { row: position.row, column: position.column, use }] : others,
      };
    }),
  }));
  return 'saved' in result ? { saved: true, message: said } : result;
}

/** Writes the moves of one turn of the rotation into the log. */
async function turn(trialId: string | undefined, { number }: FormOf<'turn'>): Promise<ActionResult> {
  const { row, state } = await loadTrial(trialId);
  if (!state.seal) return { errors: { turn: 'Turns begin when the plan is sealed.' } };
  const wanted = rotationPlan(row.plan).find((t) => t.number === number);
  if (!wanted) return { errors: { turn: 'There is no such turn.' } };
  const moves = [...wanted.positions].flatMap(([unitId, to]) =>
    positionKey(state.positions.get(unitId)!) === positionKey(to) ? [] : [{ unitId, to }],
  );
  const task = turnTask(number);
  await appendEntries(trialId, [
    ...(moves.length > 0 ? [{ kind: 'move' as const, moves, reason: `rotation, ${task}` }] : []),
    { kind: 'taskDone', task },
  ]);
  return { saved: true, message: `Turn ${number}: ${moves.length} moved, and written into the log.` };
}

async function seal(trialId: string | undefined): Promise<ActionResult> {
  const { row, key } = await loadTrial(trialId);
  const missing = missingForSeal(row.plan);
  if (missing.length > 0)
    return { errors: { seal: `Still missing: ${missing.map((m) => m.what).join('; ')}.` } };
  if (row.plan.blinding !== 'open' && !(key && keyFits(key, row.plan))) {
    return { errors: { seal: 'The codes don’t fit the contenders; save the blinding again.' } };
  }
  await sealPlan(trialId);
  return { saved: true, message: 'The plan is sealed.' };
}

async function breakSeal(trialId: string | undefined): Promise<ActionResult> {
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

/** Opens the codes: a log entry with the time, which can't be taken back. */
async function reveal(trialId: string | undefined): Promise<ActionResult> {
  const { state, blind } = await loadTrial(trialId);
  if (!blind) return { saved: true, message: 'The codes are open.' };
  if (!state.seal) return { errors: { reveal: 'Codes are opened after the seal.' } };
  await appendEntries(trialId, [{ kind: 'reveal', reason: '' }]);
  return { saved: true, message: 'The codes are open; the log has the time.' };
}

/** Everything the Layout room can do to a trial. */
export async function layoutAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const parsed = LayoutForm.safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const form = parsed.data;
  switch (form.intent) {
    case 'areas':
      return saveAreas(trialId, form);
    case 'design': {
      const { kind, replicates, seed, settings } = form;
      return laidOut(trialId, {
        kind,
        replicates,
        seed,
        settings: kind === 'split' ? settings : [],
        balance: null,
      });
    }
    case 'balanced': {
      const { intent: _, ...design } = form;
      return laidOut(trialId, design);
    }
    case 'move':
      return moveUnit(trialId, form);
    case 'reserve':
      return reserve(trialId, form);
    case 'readings': {
      const { name, unit, readings } = form;
      return change(
        trialId,
        readings.length > 0 ? `${readings.length} readings are kept.` : 'The readings are taken off.',
        (plan) => ({ ...plan, gradient: readings.length > 0 ? { name, unit, readings } : null }),
      );
    }
    case 'sizes': {
      const sizes = new Map(form.sizes.map((s) => [s.unitId, s.size]));
      return change(trialId, 'The start sizes are saved.', (plan) => ({
        ...plan,
        units: plan.units.map((u) => ({ ...u, startSize: sizes.has(u.id) ? sizes.get(u.id)! : u.startSize })),
      }));
    }
    case 'rotation': {
      const { everyDays, within } = form;
      return change(
        trialId,
        within === 'off' ? 'Units stay where they stand.' : 'The rotation is planned.',
        (plan) => ({ ...plan, rotation: within === 'off' ? null : { everyDays, within } }),
      );
    }
    case 'blinding':
      return change(
        trialId,
        form.blinding === 'open' ? 'Names are shown.' : 'Codes are dealt; names are hidden from now on.',
        (plan) => ({ ...plan, blinding: form.blinding }),
      );
    case 'turn':
      return turn(trialId, form);
    case 'undo':
      await undoPlan(trialId);
      return { saved: true, message: 'Taken back.' };
    case 'seal':
      return seal(trialId);
    case 'breakSeal':
      return breakSeal(trialId);
    case 'reveal':
      return reveal(trialId);
    case 'labelsPrinted':
      await appendEntries(trialId, [{ kind: 'taskDone', task: LABELS_TASK }]);
      return { saved: true, message: 'Written down: the labels are printed.' };
  }
}
