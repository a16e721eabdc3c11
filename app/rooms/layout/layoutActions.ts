import type { z } from 'zod';
import { layOut, movesFor } from '~core/design/layOut';
import { withRoom } from '~core/schedule/withRoom';
import { describeLayoutError } from '~core/design/randomise';
import { rotationPlan } from '~core/design/rotation';
import type { Plan } from '~core/model/plan';
import { positionKey, reservedUse } from '~core/model/positions';
import { ok } from '~core/model/result';
import { planIndex } from '~core/plan/planIndex';
import { sharesPlace } from '~core/plan/sharing';
import { turnLines } from '~core/schedule/beforeSeal';
import { turnTask } from '~core/schedule/tasks';
import { formatFigure } from '~core/quantity/format';
import { type Answer, command, done, saves } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { change as changeTrial } from '../../store/change';
import { appendEntries, savePlan } from '../../store/trials';
import { sealCommands } from '../seal/sealActions';
import { undoCommand } from '../undoAction';
import { BalancedForm, DesignForm, MoveForm, ReserveForm, ShareForm, TurnForm } from './layoutForms';
import { areasRecord, readingsRecord, rotationRecord, sizesRecord } from './layoutRecords';

async function laidOut(
  trialId: string | undefined,
  wanted: Plan['design'] & object,
  { seenPlanRev, inEach = 1 }: { seenPlanRev?: number; inEach?: number } = {},
): Promise<Answer> {
  const saved = await savePlan<Refused>(
    trialId,
    (plan) => {
      // Whole areas are dealt at random, whatever was chosen for single units before.
      const design = plan.unitsShare === 'place' ? { ...wanted, kind: 'crd' as const, settings: [] } : wanted;
      const ready = withRoom(plan, design, inEach);
      const units = layOut(ready, design);
      return units.ok
        ? ok({ ...ready, design, units: units.value })
        : refuse('replicates', describeLayoutError(units.error));
    },
    seenPlanRev === undefined ? {} : { seenPlanRev },
  );
  return done(
    saved,
    wanted.balance
      ? `Laid out; treatment means lie ${formatFigure(wanted.balance.spreadPercent, 1)} % apart.`
      : 'Units are laid out.',
  );
}

async function moveUnit(trialId: string | undefined, form: z.output<typeof MoveForm>): Promise<Answer> {
  let message = '';
  const written = await changeTrial<Refused>(trialId, ({ trial: { state, row } }) => {
    const area = planIndex(row.plan).area(form.to.areaId);
    if (!area || reservedUse(area, form.to.row, form.to.column)) {
      return refuse('to', 'That position is blocked or belongs to a guard.');
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
  return done(written, () => message);
}

/** A free position becomes blocked, then a guard's, then free again. */
async function reserve(
  trialId: string | undefined,
  { position }: z.output<typeof ReserveForm>,
): Promise<Answer> {
  const next = { none: 'blocked', blocked: 'guard', guard: null } as const;
  let message = '';
  const saved = await savePlan<Refused>(trialId, (plan) => {
    if (plan.units.some((u) => positionKey(u.position) === positionKey(position))) {
      return refuse('position', 'A unit stands there; move it first.');
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
  return done(saved, () => message);
}

/** Writes the moves of one turn of the rotation into the log. */
async function turn(trialId: string | undefined, { number }: z.output<typeof TurnForm>): Promise<Answer> {
  let moved = 0;
  const task = turnTask(number);
  const written = await appendEntries<Refused>(trialId, ({ row, state }) => {
    if (!state.seal) return refuse('turn', 'Turns begin when the plan is sealed.');
    if (state.tasksDone.has(task)) return refuse('turn', 'This turn is in the log already.');
    const wanted = rotationPlan(row.plan).find((t) => t.number === number);
    if (!wanted) return refuse('turn', 'There is no such turn.');
    const lines = turnLines(wanted, state.positions);
    moved = lines.reduce((n, l) => n + (l.kind === 'move' ? l.moves.length : 0), 0);
    return ok(lines);
  });
  return done(written, () => `Turn ${number}: ${moved} moved, and written into the log.`);
}

/** Everything the Layout room can do to a trial. */
export const layoutCommands = {
  areas: saves('plan', areasRecord, (before, after) =>
    after.units.length < before.units.length ? 'The areas changed; randomise again.' : 'The areas are saved.',
  ),
  design: command(DesignForm, (trialId, { kind, replicates, seed, settings, inEach }) =>
    laidOut(
      trialId,
      { ...{ kind, replicates, seed, balance: null }, settings: kind === 'split' ? settings : [] },
      inEach === undefined ? {} : { inEach },
    ),
  ),
  share: command(ShareForm, async (trialId, { unitsShare }) => {
    let gone = false;
    const saved = await savePlan(trialId, (plan) => {
      // What was dealt unit by unit isn't a deal of whole areas, nor the other way round.
      const dealt = plan.design !== null && plan.design.kind !== 'hand' && plan.units.length > 0;
      gone = dealt && sharesPlace(plan) !== (unitsShare === 'place');
      // The one area that just held the deal goes with it; what somebody drew, read or blocked stays.
      const [only, another] = plan.areas;
      const made =
        only && !another && plan.gradient === null && only.reserved.length === 0 && only.widthCm === null;
      return { ...plan, unitsShare, ...(gone && { units: [], ...(made && { areas: [] }) }) };
    });
    const sentence =
      unitsShare === 'place' ? 'All in one area are one repeat' : 'Each is a repeat of its own';
    return done(saved, () => `${sentence}${gone ? ': lay out again' : ''}.`);
  }),
  balanced: command(BalancedForm, (trialId, { intent: _, seenPlanRev, ...design }) =>
    laidOut(trialId, design, { seenPlanRev }),
  ),
  move: command(MoveForm, moveUnit),
  reserve: command(ReserveForm, reserve),
  readings: saves('plan', readingsRecord, (_, { gradient }) =>
    gradient ? `${gradient.readings.length} readings are kept.` : 'The readings are taken off.',
  ),
  sizes: saves('plan', sizesRecord, 'The start sizes are saved.'),
  rotation: saves('plan', rotationRecord, (_, { rotation }) =>
    rotation ? 'The rotation is planned.' : 'Units stay where they stand.',
  ),
  turn: command(TurnForm, turn),
  undo: undoCommand,
  ...sealCommands,
};
