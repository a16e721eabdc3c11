import { z } from 'zod';
import { CardHeading, SetClaim } from '~core/model/judgement';
import { ok } from '~core/model/result';
import { type MergeError, SentForm, mergedValues, refusal } from '../../form/mergedForm';
import type { ActionResult } from '../../form/schemaFields';
import { change } from '../../store/change';
import { saidBy } from '../../form/schemaFields';
import { announce } from '../../ui/announce';
import type { RoomArgs } from '../roomArgs';

const Sent = z.object({ what: z.enum(['headings', 'claims']), form: SentForm });

/** Keeps the scorecard's headings, or how claims are set; what another tab changed meanwhile stays. */
export async function verdictAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const sent = Sent.safeParse(await request.json());
  if (!sent.success) return { errors: { headings: 'Nothing was sent.' } };
  const { what, form } = sent.data;
  const saved = await change<MergeError>(params.trialId, ({ trial }) => {
    const { review } = trial.row;
    if (what === 'headings') {
      const values = mergedValues(form, review.headings ?? [], z.array(CardHeading).max(20));
      return values.ok ? ok({ review: { ...review, headings: values.value } }) : values;
    }
    const values = mergedValues(form, review.claims ?? [], z.array(SetClaim).max(200));
    return values.ok ? ok({ review: { ...review, claims: values.value } }) : values;
  });
  const answer: ActionResult = saved.ok ? { saved: true } : refusal(saved.error, what);
  if (!saved.ok) announce(`Not kept: ${saidBy(answer) ?? ''}`);
  return answer;
}
