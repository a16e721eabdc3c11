import type { z } from 'zod';
import { keyFits } from '~core/design/blinding';
import { layOut, movesFor } from '~core/design/layOut';
import { describeLayoutError } from '~core/design/randomise';
import { rotationPlan } from '~core/design/rotation';
import type { AreaId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import type { Plan, Position } from '~core/model/plan';
import { positionKey, reservedUse } from '~core/model/positions';
import { err, ok } from '~core/model/result';
import { planIndex } from '~core/plan/planIndex';
import { missingForSeal } from '~core/plan/seal';
import { LABELS_TASK, turnTask } from '~core/schedule/tasks';
import { protocolOf } from '~core/schedule/protocols';
import { formatFigure } from '~core/quantity/format';
import { type ActionResult, fieldErrors } from '../../form/schemaFields';
import { type MergeError, SentForm, mergedValues, refusal } from '../../form/mergedForm';
import { change as changeTrial } from '../../store/change';
import { type ChangeError, describeChangeError } from '../../store/errors';
import { appendEntries, loadTrial, savePlan, sealPlan } from '../../store/trials';
import { undoAction } from '../undoAction';
import { AreaForm, LayoutForm, toAreasForm } from './layoutForms';

type Form = z.output<typeof LayoutForm>;
type FormOf<I extends Form['intent']> = Extract<Form, { intent: I }>;

/** A refusal in words, as `Result`s carry it out of a change. */
interface Said {
  tag: 'said';
  at: string;
  text: string;
}
const said = (at: string, text: string) => err<Said>({ tag: 'said', at, text });

function answer(error: Said | ChangeError): ActionResult {
  return error.tag === 'said'
    ? { errors: { [error.at]: error.text } }
    : { errors: { intent: describeChangeError(error) } };
}

async function change(
  trialId: string | undefined,
  message: string,
  to: (plan: Plan) => Plan,
): Promise<ActionResult> {
  const saved = await savePlan(trialId, to);
  return saved.ok ? { saved: true, message } : answer(saved.error);
}

/** The plan with these places; a layout that would have holes isn't the one that was drawn: it goes. */
function withAreas(plan: Plan, form: FormOf<'areas'>): Plan {
  const { unitShape, unitWidthCm, unitDepthCm, spares } = form;
  const { inches: _, unitsShare: _said, ...rest } = plan;
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
  const gradient = plan.gradient && {
    ...plan.gradient,
    readings: plan.gradient.readings.filter((r) => fits(r.position)),
  };
  const units = plan.units.every((u) => fits(u.position)) ? plan.units : [];
  const sizes = { unitShape, unitWidthCm, unitDepthCm, ...(form.inches && { inches: form.inches }) };
  const share = form.unitsShare === '' ? {} : { unitsShare: form.unitsShare };
  return { ...rest, ...sizes, ...share, spares, areas, gradient, units };
}

async function saveAreas(trialId: string | undefined, sent: SentForm): Promise<ActionResult> {
  let lost = false;
  const saved = await savePlan<MergeError>(trialId, (plan) => {
    // A plan without places shows one to start from, which isn't saved yet.
    const values = mergedValues(sent, toAreasForm(plan), AreaForm);
    if (!values.ok) return values;
    const next = withAreas(plan, values.value);
    lost = next.units.length < plan.units.length;
    return ok(next);
  });
  if (!saved.ok) return refusal(saved.error, 'areas');
  return {
    saved: true,
    message: lost ? 'The areas changed; randomise again.' : 'The areas are saved.',
    now: toAreasForm(saved.value.trial.row.plan),
  };
}

/** A plan without an area gets one that just holds what is to be laid out, as its kind of trial stands. */
function withSomeArea(plan: Plan, replicates: number): Plan {
  if (plan.areas.length > 0 || plan.treatments.length === 0 || replicates > 40) return plan;
  const kind = protocolOf(plan.protocolId)?.area ?? 'shelf';
  const area = {
    id: newId<AreaId>(),
    name: kind.replace(/^./, (c) => c.toUpperCase()),
    kind,
    rows: replicates,
    columns: Math.min(40, plan.treatments.length),
    widthCm: null,
    depthCm: null,
    reserved: [],
  };
  return { ...plan, areas: [area] };
}

async function laidOut(
  trialId: string | undefined,
  design: Plan['design'] & object,
  seenPlanRev?: number,
): Promise<ActionResult> {
  const saved = await savePlan<Said>(
    trialId,
    (plan) => {
      const ready = withSomeArea(plan, design.replicates * Math.max(1, design.settings.length));
      const units = layOut(ready, design);
      return units.ok
        ? ok({ ...ready, design, units: units.value })
        : said('replicates', describeLayoutError(units.error));
    },
    seenPlanRev === undefined ? {} : { seenPlanRev },
  );
  if (!saved.ok) return answer(saved.error);
  return {
    saved: true,
    message: design.balance
      ? `Laid out; treatment means lie ${formatFigure(design.balance.spreadPercent, 1)} % apart.`
      : 'Units are laid out.',
  };
}

async function moveUnit(trialId: string | undefined, form: FormOf<'move'>): Promise<ActionResult> {
  let message = '';
  const done = await changeTrial<Said>(trialId, ({ trial: { state, row } }) => {
    const area = planIndex(row.plan).area(form.to.areaId);
    if (!area || reservedUse(area, form.to.row, form.to.column)) {
      return said('to', 'That position is blocked or belongs to a guard.');
    }
    const moves = movesFor(state.positions, form.unitId, form.to);
    message =
      moves.length === 0
        ? 'It stands there already.'
        : state.seal
          ? 'Moved, and written into the log.'
          : 'Moved.';
    if (moves.length === 0) return ok({});
    if (state.seal) return ok({ entries: [{ kind: 'move', moves, reason: form.reason }] });
    const to = new Map(moves.map((m) => [m.unitId, m.to]));
    const units = row.plan.units.map((u) => ({ ...u, position: to.get(u.id) ?? u.position }));
    return ok({ plan: { ...row.plan, units } });
  });
  return done.ok ? { saved: true, message } : answer(done.error);
}

/** A free position becomes blocked, then a guard's, then free again. */
async function reserve(trialId: string | undefined, { position }: FormOf<'reserve'>): Promise<ActionResult> {
  const next = { none: 'blocked', blocked: 'guard', guard: null } as const;
  let message = '';
  const saved = await savePlan<Said>(trialId, (plan) => {
    if (plan.units.some((u) => positionKey(u.position) === positionKey(position))) {
      return said('position', 'A unit stands there; move it first.');
    }
    const areas = plan.areas.map((a) => {
      if (a.id !== position.areaId) return a;
      const use = next[reservedUse(a, position.row, position.column) ?? 'none'];
      message = use === 'blocked' ? 'Blocked.' : use === 'guard' ? 'A guard stands there.' : 'Free again.';
      const others = a.reserved.filter((c) => c.row !== position.row || c.column !== position.column);
      return {
        ...a,
        reserved: use ? [...others, { row: position.row, column: position.column, use }] : others,
      };
    });
    return ok({ ...plan, areas });
  });
  return saved.ok ? { saved: true, message } : answer(saved.error);
}

/** Writes the moves of one turn of the rotation into the log. */
async function turn(trialId: string | undefined, { number }: FormOf<'turn'>): Promise<ActionResult> {
  let moved = 0;
  const task = turnTask(number);
  const done = await appendEntries<Said>(trialId, ({ row, state }) => {
    if (!state.seal) return said('turn', 'Turns begin when the plan is sealed.');
    if (state.tasksDone.has(task)) return said('turn', 'This turn is in the log already.');
    const wanted = rotationPlan(row.plan).find((t) => t.number === number);
    if (!wanted) return said('turn', 'There is no such turn.');
    const moves = [...wanted.positions].flatMap(([unitId, to]) =>
      positionKey(state.positions.get(unitId)!) === positionKey(to) ? [] : [{ unitId, to }],
    );
    moved = moves.length;
    return ok([
      ...(moves.length > 0 ? [{ kind: 'move' as const, moves, reason: `rotation, ${task}` }] : []),
      { kind: 'taskDone' as const, task },
    ]);
  });
  return done.ok
    ? { saved: true, message: `Turn ${number}: ${moved} moved, and written into the log.` }
    : answer(done.error);
}

/** Seals the plan as it was looked at: what is missing is asked of the plan in the database. */
async function seal(trialId: string | undefined, { seenPlanRev }: FormOf<'seal'>): Promise<ActionResult> {
  const { row, key } = await loadTrial(trialId);
  const missing = missingForSeal(row.plan);
  if (missing.length > 0)
    return { errors: { seal: `Still missing: ${missing.map((m) => m.what).join('; ')}.` } };
  if (row.plan.blinding !== 'open' && !(key && keyFits(key, row.plan))) {
    return { errors: { seal: 'The codes don’t fit the contenders; save the blinding again.' } };
  }
  const sealed = await sealPlan(trialId, seenPlanRev);
  return sealed.ok ? { saved: true, message: 'The plan is sealed.' } : answer(sealed.error);
}

async function breakSeal(trialId: string | undefined): Promise<ActionResult> {
  const broken = await appendEntries<Said>(trialId, ({ state }) => {
    if (!state.seal) return said('seal', 'There is no seal.');
    if (state.observations.length > 0) {
      return said('seal', 'Values are logged already: the seal stays, and changes go to the log.');
    }
    return ok([
      {
        kind: 'correction' as const,
        supersedes: state.seal.entryId,
        replacement: null,
        reason: 'seal broken before the first value',
      },
    ]);
  });
  return broken.ok
    ? { saved: true, message: 'The seal is broken; the log keeps both.' }
    : answer(broken.error);
}

/** Opens the codes: a log entry with the time, which can't be taken back. */
async function reveal(trialId: string | undefined): Promise<ActionResult> {
  const opened = await appendEntries<Said>(trialId, ({ state, blind, keyMissing }) => {
    if (!blind) return ok([]);
    if (!state.seal) return said('reveal', 'Codes are opened after the seal.');
    if (keyMissing) {
      return said('reveal', 'The key isn’t on this bench: import the file that holds it first.');
    }
    return ok([{ kind: 'reveal' as const, reason: '' }]);
  });
  return opened.ok
    ? {
        saved: true,
        message:
          opened.value.length > 0 ? 'The codes are open; the log has the time.' : 'The codes are open.',
      }
    : answer(opened.error);
}

/** Everything the Layout room can do to a trial. */
export async function layoutAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const sent = SentForm.safeParse(data);
  if (sent.success && sent.data.values !== undefined) return saveAreas(trialId, sent.data);
  const parsed = LayoutForm.safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const form = parsed.data;
  switch (form.intent) {
    case 'areas':
      return saveAreas(trialId, { base: undefined, values: data });
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
      const { intent: _, seenPlanRev, ...design } = form;
      return laidOut(trialId, design, seenPlanRev);
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
      return undoAction(trialId);
    case 'seal':
      return seal(trialId, form);
    case 'breakSeal':
      return breakSeal(trialId);
    case 'reveal':
      return reveal(trialId);
    case 'labelsPrinted':
      return labelsPrinted(trialId);
  }
}

async function labelsPrinted(trialId: string | undefined): Promise<ActionResult> {
  const done = await appendEntries(trialId, [{ kind: 'taskDone', task: LABELS_TASK }]);
  return done.ok ? { saved: true, message: 'Written down: the labels are printed.' } : answer(done.error);
}
