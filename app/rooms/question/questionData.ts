import { z } from 'zod';
import type { ActionResult } from '../../form/schemaFields';
import { err, ok } from '~core/model/result';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { protocolOf } from '~core/schedule/protocols';
import { SentForm, mergedValues, refusal } from '../../form/mergedForm';
import { describeChangeError } from '../../store/errors';
import { loadTrial, savePlan } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import { undoAction } from '../undoAction';
import { announce } from '../../ui/announce';
import type { RoomArgs } from '../roomArgs';
import { QuestionForm, applyQuestion, toQuestionForm } from './questionForm';
import { sentIn } from '../../form/handedOver';

export async function loadQuestion({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  return {
    id: row.id,
    plan: row.plan,
    sealedAt: state.seal?.at ?? null,
    undoable: state.seal ? 0 : await undoDepth(row.id),
  };
}

export type QuestionData = Awaited<ReturnType<typeof loadQuestion>>;

const ProtocolAct = z.object({ intent: z.literal('protocol'), protocolId: z.string() });
const UndoAct = z.object({ intent: z.literal('undo') });

export async function questionAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const data: unknown = await sentIn(request);
  const act = ProtocolAct.safeParse(data);
  if (act.success) return fillFrom(params.trialId, act.data.protocolId);
  if (UndoAct.safeParse(data).success) return undoAction(params.trialId);
  const sent = SentForm.safeParse(data);
  if (!sent.success) return { errors: { question: 'Nothing was sent.' } };
  const saved = await savePlan(params.trialId, (plan) => {
    const values = mergedValues(sent.data, toQuestionForm(plan), QuestionForm);
    return values.ok ? ok(applyQuestion(plan, values.value)) : values;
  });
  return saved.ok
    ? { saved: true, message: 'The question is saved.', now: toQuestionForm(saved.value.trial.row.plan) }
    : refusal(saved.error, 'question');
}

async function fillFrom(trialId: string | undefined, protocolId: string): Promise<ActionResult> {
  const protocol = protocolOf(protocolId);
  if (!protocol) return { errors: { protocolId: 'There is no such protocol.' } };
  const saved = await savePlan<{ tag: 'hasValues' }>(trialId, (plan, { trial }) =>
    trial.state.observations.length > 0 ? err({ tag: 'hasValues' }) : ok(applyProtocol(plan, protocol)),
  );
  if (saved.ok) {
    announce('The plan is filled from the protocol; change what you like.');
    return { saved: true };
  }
  const why =
    saved.error.tag === 'hasValues'
      ? 'Values are logged already; traits can’t be replaced.'
      : describeChangeError(saved.error);
  announce(why);
  return { errors: { protocolId: why } };
}
