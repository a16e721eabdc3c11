import { redirect } from 'react-router';
import { z } from 'zod';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { proposeCode } from '~core/plan/proposeCode';
import { freeCode } from '~core/plan/copy';
import { retestOf } from '~core/plan/retest';
import { todayDate } from '../../bench/clock';
import { createTrial, listTrials, loadTrial } from '../../store/trials';
import { CardHeading, CostSettings, SetClaim, noCosts } from '~core/model/judgement';
import { ok } from '~core/model/result';
import { type MergeError, SentForm, mergedValues, refusal } from '../../form/mergedForm';
import type { ActionResult } from '../../form/schemaFields';
import { change } from '../../store/change';
import { saidBy } from '../../form/schemaFields';
import { announce } from '../../ui/announce';
import type { RoomArgs } from '../roomArgs';
import { sentIn } from '../../form/handedOver';

const Retest = z.object({
  retest: z.object({ cvPercent: z.number().positive().nullable(), replicates: z.number().int().nullable() }),
});

/** A new trial from this one, with what was learned; opens its Question. */
async function planRetest(trialId: string | undefined, learned: z.infer<typeof Retest>['retest']) {
  const { row } = await loadTrial(trialId);
  const taken = (await listTrials()).map((t) => t.row.plan.code as string);
  const id = newId<TrialId>();
  const code = freeCode(row.plan.code, proposeCode(row.plan.crop, row.plan.question, taken), taken);
  await createTrial(retestOf(row.plan, { id, code, startDate: todayDate() }, learned));
  return redirect(`/trial/${id}/question`);
}

const Sent = z.object({ what: z.enum(['headings', 'claims', 'costs']), form: SentForm });

/** Keeps the scorecard's headings, or how claims are set; what another tab changed meanwhile stays. */
export async function verdictAction({ params, request }: RoomArgs): Promise<ActionResult | Response> {
  const body: unknown = await sentIn(request);
  const again = Retest.safeParse(body);
  if (again.success) return planRetest(params.trialId, again.data.retest);
  const sent = Sent.safeParse(body);
  if (!sent.success) return { errors: { headings: 'Nothing was sent.' } };
  const { what, form } = sent.data;
  const saved = await change<MergeError>(params.trialId, ({ trial }) => {
    const { review } = trial.row;
    if (what === 'headings') {
      const values = mergedValues(form, review.headings ?? [], z.array(CardHeading).max(20));
      return values.ok ? ok({ review: { ...review, headings: values.value } }) : values;
    }
    if (what === 'costs') {
      const values = mergedValues(form, review.costs ?? noCosts, CostSettings);
      return values.ok ? ok({ review: { ...review, costs: values.value } }) : values;
    }
    const values = mergedValues(form, review.claims ?? [], z.array(SetClaim).max(200));
    return values.ok ? ok({ review: { ...review, claims: values.value } }) : values;
  });
  const answer: ActionResult = saved.ok
    ? { saved: true, rev: saved.value.trial.rev }
    : refusal(saved.error, what);
  // Of another tab's change the view itself says more.
  if ('errors' in answer) announce(`Not kept: ${saidBy(answer) ?? ''}`);
  return answer;
}
