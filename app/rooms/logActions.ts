import { z } from 'zod';
import { type Observation, type TrialState, observationsOf } from '~core/log/state';
import { EntryBody } from '~core/log/entry';
import { describeChangeError } from '../store/errors';
import { appendEntries } from '../store/trials';
import { announce } from '../ui/announce';
import { type ActionResult, type FieldErrors, fieldErrors } from '../form/schemaFields';

/** What Rounds and Weigh-in send: one thing to write down. */
const LogForm = z.object({ body: EntryBody });

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
      old.outOf === (body.outOf ?? null)
    );
  }
  return (
    body.kind === 'weighing' &&
    old.weighing !== null &&
    old.weighing.grossG === body.grossG &&
    old.weighing.tareG === body.tareG
  );
}

/**
 * Appends to the log and says what came of it. A value for a place that has one already becomes a
 * correction of the line it stands from, so the old value stays visible.
 */
export async function logAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const parsed = LogForm.safeParse(data);
  if (!parsed.success) return refused(fieldErrors(parsed.error));
  const { body } = parsed.data;
  if (body.kind === 'weighing' && body.grossG < body.tareG) {
    return refused({ grossG: `Gross ${body.grossG} g is less than the tare of ${body.tareG} g.` });
  }
  const written = await appendEntries(trialId, ({ state }) => {
    const old = valueInPlace(state, body);
    if (!old) return [body];
    if (saysTheSame(old, body)) return [];
    return [{ kind: 'correction', supersedes: old.standsFrom, replacement: body, reason: 'entered again' }];
  });
  if (!written.ok) return refused({ trial: describeChangeError(written.error) });
  if (written.value[0]?.kind === 'correction') announce('Corrected; the old value stays in the log.');
  return { saved: true };
}

function refused(errors: FieldErrors): ActionResult {
  announce(`Not kept: ${Object.values(errors)[0]}`);
  return { errors };
}
