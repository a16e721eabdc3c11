import { z } from 'zod';
import { type Observation, type TrialState, observationsOf } from '~core/log/state';
import { type Entry, EntryBody } from '~core/log/entry';
import type { Result } from '~core/model/result';
import { type Saying, momentOf } from '../store/change';
import { extraUnitOf } from '~core/design/extraUnitOf';
import { type AreaId, RoundId, TraitId, TreatmentId, UnitId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { toldApart } from '~core/log/kinds/toldApart';
import { MOST_PASTED } from '~core/log/pastedValues';
import { tellApart } from '~core/log/tellApart';
import { todayDate } from '../bench/clock';
import { type ChangeError, describeChangeError, sayStorageFault } from '../store/errors';
import { type LoadedTrial, appendEntries, loadTrial } from '../store/trials';
import { NOT_STORED } from '../form/guarded';
import { announce } from '../ui/announce';
import { nextFrame } from '../ui/nextFrame';
import { type ActionResult, type FieldErrors, fieldErrors } from '../form/schemaFields';

/** Another day than today. */
const When = z
  .object({ date: z.iso.date(), time: z.string().regex(/^\d{2}:\d{2}$/) })
  .refine(({ date }) => date <= todayDate(), 'That day is still to come.');

/** What Rounds and Weigh-in send: one thing to write down. */
const LogForm = z.object({
  body: EntryBody,
  when: When.optional(),
});

/** Several things to write down together: all of them, or none. */
const LinesForm = z.object({
  bodies: z.array(EntryBody).min(1).max(MOST_PASTED),
  when: When.optional(),
});

/** All units of a trait put in order at once. */
const OrderForm = z.object({
  order: z.object({
    traitId: TraitId,
    roundId: RoundId,
    sample: z.number().int().min(1).nullable(),
    ranks: z.array(z.object({ unitId: UnitId, rank: z.number().min(1) })).min(1),
  }),
});

async function orderAction(
  trialId: string | undefined,
  { traitId, roundId, sample, ranks }: z.infer<typeof OrderForm>['order'],
): Promise<ActionResult> {
  const written = await appendEntries(trialId, ({ state }) =>
    ranks.flatMap(({ unitId, rank }) =>
      lineFor(state, { kind: 'measurement', unitId, traitId, roundId, sample, value: rank }),
    ),
  );
  if (!written.ok) return refused({ trial: describeChangeError(written.error) });
  announce(written.value.length === 0 ? 'Nothing changed.' : 'The order is kept.');
  return { saved: true };
}

async function linesAction(
  trialId: string | undefined,
  { bodies, when }: z.infer<typeof LinesForm>,
): Promise<ActionResult> {
  const written = await appendEntries(
    trialId,
    ({ state }) => bodies.flatMap((body) => lineFor(state, body)),
    when && momentOf(when.date, when.time),
  );
  if (!written.ok) return refused({ trial: describeChangeError(written.error) });
  const n = bodies.length;
  const corrected = written.value.filter((e) => e.kind === 'correction').length;
  if (bodies[0]!.kind === 'measurement')
    announce(
      `${n} ${n === 1 ? 'value is' : 'values are'} in the log${corrected > 0 ? `, ${corrected} of them corrected; the old ones stay visible` : ''}.`,
    );
  else if (spoken.has(bodies[0]!.kind)) announce('Written into the log.');
  return { saved: true };
}

/** Units whose labels were lost, told apart. */
const TellApartForm = z.object({ tellApart: toldApart.body.omit({ kind: true }) });

/** A unit more than planned: its code and position are worked out from the trial as it is stored. */
const ExtraUnitForm = z.object({
  extraUnit: z.object({ treatmentId: TreatmentId, reason: z.string().trim().max(500) }),
  when: When.optional(),
});

async function extraUnitAction(
  trialId: string | undefined,
  { extraUnit: of, when }: z.infer<typeof ExtraUnitForm>,
): Promise<ActionResult> {
  const ids = { unit: newId<UnitId>(), area: newId<AreaId>() };
  const written = await appendEntries(
    trialId,
    ({ state }) => [extraUnitOf(state, of, ids)],
    when && momentOf(when.date, when.time),
  );
  if (!written.ok) return refused({ trial: describeChangeError(written.error) });
  announce('Written into the log.');
  return { saved: true };
}

async function tellApartAction(
  trialId: string | undefined,
  form: z.infer<typeof TellApartForm>['tellApart'],
): Promise<ActionResult> {
  const written = await appendEntries(trialId, ({ state }) =>
    tellApart(state, form.mixedUpId, form.as, form.how),
  );
  if (!written.ok) return refused({ trial: describeChangeError(written.error) });
  const moved = written.value.length - 1;
  announce(
    moved > 0
      ? `Told apart; ${moved} ${moved === 1 ? 'line goes' : 'lines go'} to the right one, the log keeps both.`
      : 'Told apart, and written into the log.',
  );
  return { saved: true };
}

/** The value that a new one of the same unit, trait, round and sample puts right. */
function valueInPlace(state: TrialState, body: EntryBody): Observation | undefined {
  if ((body.kind !== 'measurement' && body.kind !== 'weighing') || body.roundId === null) return undefined;
  return observationsOf(state, body.unitId, body.traitId, body.roundId).findLast(
    (o) => o.sample === body.sample,
  );
}

/** Whether a new value says the same as the one that stands: nothing is corrected then. */
function saysTheSame(old: Observation, body: EntryBody): boolean {
  if (body.kind === 'measurement') {
    return (
      old.weighing === null &&
      old.value === body.value &&
      old.notYet === (body.notYet === true) &&
      old.outOf === (body.outOf ?? null) &&
      (old.borderline ?? 0) === (body.borderline ?? 0) &&
      (old.offType ?? 0) === (body.offType ?? 0)
    );
  }
  return (
    body.kind === 'weighing' &&
    old.weighing !== null &&
    old.weighing.grossG === body.grossG &&
    old.weighing.tareG === body.tareG
  );
}

/** The line for a value: a correction of the one that stands in its place, nothing where it says the same. */
function lineFor(state: TrialState, body: EntryBody): Saying[] {
  const old = valueInPlace(state, body);
  if (!old) return [body];
  if (saysTheSame(old, body)) return [];
  return [{ kind: 'correction', supersedes: old.standsFrom, replacement: body, reason: 'entered again' }];
}

/**
 * Appends to the log and says what came of it. A value for a place that has one already becomes a
 * correction of the line it stands from, so the old value stays visible.
 */
export async function logAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  if (typeof data === 'object' && data !== null && 'tellApart' in data) {
    const apart = TellApartForm.safeParse(data);
    return apart.success ? tellApartAction(trialId, apart.data.tellApart) : refused(fieldErrors(apart.error));
  }
  if (typeof data === 'object' && data !== null && 'extraUnit' in data) {
    const extra = ExtraUnitForm.safeParse(data);
    return extra.success ? extraUnitAction(trialId, extra.data) : refused(fieldErrors(extra.error));
  }
  if (typeof data === 'object' && data !== null && 'bodies' in data) {
    const lines = LinesForm.safeParse(data);
    return lines.success ? linesAction(trialId, lines.data) : refused(fieldErrors(lines.error));
  }
  if (typeof data === 'object' && data !== null && 'order' in data) {
    const order = OrderForm.safeParse(data);
    return order.success ? orderAction(trialId, order.data.order) : refused(fieldErrors(order.error));
  }
  const parsed = LogForm.safeParse(data);
  if (!parsed.success) return refused(fieldErrors(parsed.error));
  const { body, when } = parsed.data;
  if (body.kind === 'weighing' && body.grossG < body.tareG) {
    return refused({ grossG: `Gross ${body.grossG} g is less than the tare of ${body.tareG} g.` });
  }
  const say = ({ state }: LoadedTrial): Saying[] => lineFor(state, body);
  let written: Result<Entry[], ChangeError>;
  try {
    written = await appendEntries(trialId, say, when && momentOf(when.date, when.time));
  } catch (fault) {
    return refused({ [NOT_STORED]: `${await nameOf(trialId, body)}${sayStorageFault(fault)}` });
  }
  if (!written.ok) return refused({ trial: describeChangeError(written.error) });
  // That it is kept is painted before the screen is worked out anew.
  await nextFrame();
  if (written.value[0]?.kind === 'correction') announce('Corrected; the old value stays in the log.');
  if (spoken.has(body.kind)) announce('Written into the log.');
  return { saved: true };
}

/** Lines that no tile shows: that they are kept is said. */
const spoken: ReadonlySet<string> = new Set([
  'deviation',
  'replacement',
  'mixedUp',
  'spot',
  'note',
  'death',
  'exclusion',
]);

/** What wasn't stored, by unit and value: the pad has gone on to the next. */
async function nameOf(trialId: string | undefined, body: EntryBody): Promise<string> {
  if (!('unitId' in body)) return '';
  const { state } = await loadTrial(trialId);
  const code = state.plan.units.find((u) => u.id === body.unitId)?.code;
  const value =
    'value' in body
      ? ` ${body.value}`
      : 'grossG' in body
        ? ` ${body.grossG} g`
        : 'text' in body
          ? ` “${body.text}”`
          : '';
  return code ? `${code}${value}. ` : '';
}

function refused(errors: FieldErrors): ActionResult {
  announce(`Not kept: ${Object.values(errors)[0]}`);
  return { errors };
}
