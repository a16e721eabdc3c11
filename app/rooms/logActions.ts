import { z } from 'zod';
import { observationsOf } from '~core/log/state';
import { type BodyOf, EntryBody } from '~core/model/entry';
import { appendEntries, loadTrial } from '../store/trials';
import { type ActionResult, fieldErrors } from '../form/schemaFields';

/** What Rounds and Weigh-in send: one thing to write down. */
const LogForm = z.object({ body: EntryBody });

/** The entry that a new value of the same unit, trait, round and sample would put right. */
async function valueInPlace(trialId: string | undefined, body: BodyOf<'measurement'> | BodyOf<'weighing'>) {
  if (body.roundId === null) return undefined;
  const { state } = await loadTrial(trialId);
  const sample = body.kind === 'measurement' ? body.sample : null;
  return observationsOf(state, body.unitId, body.traitId, body.roundId).findLast((o) => o.sample === sample);
}

/**
 * Appends to the log. A value for a place that has one already becomes a correction of it, so the old
 * value stays visible.
 */
export async function logAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const parsed = LogForm.safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const { body } = parsed.data;
  if (body.kind === 'weighing' && body.grossG < body.tareG) {
    return { errors: { 'body.grossG': `Gross ${body.grossG} g is less than the tare of ${body.tareG} g.` } };
  }
  const old =
    body.kind === 'measurement' || body.kind === 'weighing' ? await valueInPlace(trialId, body) : undefined;
  await appendEntries(trialId, [
    old ? { kind: 'correction', supersedes: old.entryId, replacement: body, reason: 'entered again' } : body,
  ]);
  return { saved: true, message: old ? 'Corrected; the old value stays in the log.' : undefined };
}
