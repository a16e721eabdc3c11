import { audit } from '~core/fairness/audit';
import { sayBrokenSeal, verifySeal } from '~core/log/verifySeal';
import { contactSheet } from '~core/report/contactSheet';
import { cardOf } from '~core/report/trialReview';
import { reviewDocument } from '~core/report/review';
import { ReviewText } from '~core/log/trial';
import { makeVerdict } from '~core/verdict/verdict';
import { todayDate } from '../../bench/clock';
import { type MergeError, SentForm, mergedValues, refusal } from '../../form/mergedForm';
import type { ActionResult } from '../../form/schemaFields';
import { ok } from '~core/model/result';
import { change } from '../../store/change';
import { allFindings, nameIn } from '../findings/findingData';
import { plainAuditInput } from '../auditOf';
import type { RoomArgs } from '../roomArgs';

export async function loadReview({ params }: RoomArgs) {
  const { plan, state, review, findings, primary, blind, trial } = await allFindings(params.trialId);
  const nameOf = nameIn(plan);
  const check = verifySeal(trial.row.plan, state.seal, trial.row.sealedAs);
  const found = audit(plainAuditInput(trial));
  const verdict = primary && makeVerdict(plan, primary, nameOf, { state, audit: found });
  const blocks = reviewDocument({
    state,
    review,
    findings,
    verdict,
    nameOf,
    today: todayDate(),
    seal: check,
    audit: found,
  });
  return {
    plan,
    review,
    findings,
    blocks,
    sheet: contactSheet(state),
    card: cardOf(plan, review, findings, verdict, nameOf),
    blind,
    broken: sayBrokenSeal(check),
  };
}

export type ReviewData = Awaited<ReturnType<typeof loadReview>>;

export async function reviewAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const sent = SentForm.safeParse(await request.json());
  if (!sent.success) return { errors: { introduction: 'Nothing was sent.' } };
  const saved = await change<MergeError>(params.trialId, ({ trial }) => {
    const values = mergedValues(sent.data, trial.row.review, ReviewText);
    return values.ok ? ok({ review: values.value }) : values;
  });
  return saved.ok
    ? { saved: true, message: 'The review is saved.', now: saved.value.trial.row.review }
    : refusal(saved.error, 'introduction');
}
