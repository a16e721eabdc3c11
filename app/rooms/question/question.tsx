import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { FormProvider } from 'react-hook-form';
import { useLoaderData } from 'react-router';
import { z } from 'zod';
import { Field, LockedForm } from '../../form/fields';
import type { ActionResult } from '../../form/schemaFields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { err, ok } from '~core/model/result';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { protocolOf } from '~core/schedule/protocols';
import { useDeed } from '../../form/useDeed';
import { SentForm, mergedValues, refusal } from '../../form/mergedForm';
import { StaleNote } from '../../form/StaleNote';
import { describeChangeError } from '../../store/errors';
import { loadTrial, savePlan } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import { undoAction } from '../undoAction';
import { announce } from '../../ui/announce';
import { RoomHead } from '../../ui/RoomHead';
import { SealedBanner } from '../SealedBanner';
import type { RoomArgs } from '../roomArgs';
import { ProtocolPanel } from './ProtocolPanel';
import { DecidesSection } from './DecidesSection';
import { RoundsSection } from './RoundsSection';
import { TraitsSection } from './TraitsSection';
import { QuestionForm, applyQuestion, toQuestionForm } from './questionForm';

export async function clientLoader({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  return {
    id: row.id,
    plan: row.plan,
    sealedAt: state.seal?.at ?? null,
    undoable: state.seal ? 0 : await undoDepth(row.id),
  };
}

const ProtocolDeed = z.object({ intent: z.literal('protocol'), protocolId: z.string() });
const UndoDeed = z.object({ intent: z.literal('undo') });

export async function clientAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const data: unknown = await request.json();
  const deed = ProtocolDeed.safeParse(data);
  if (deed.success) return fillFrom(params.trialId, deed.data.protocolId);
  if (UndoDeed.safeParse(data).success) return undoAction(params.trialId);
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

export default function QuestionRoom() {
  const data = useLoaderData<typeof clientLoader>();
  return <QuestionEditor key={data.id} {...data} />;
}

function QuestionEditor({ id, plan, sealedAt, undoable }: Awaited<ReturnType<typeof clientLoader>>) {
  const shown = useMemo(() => toQuestionForm(plan), [plan]);
  const { form, busy, stale, onSubmit } = useRecordForm(shown, { merges: true });
  const locked = sealedAt !== null;
  const deed = useDeed();
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate style={{ maxWidth: '64rem' }}>
          <UnsavedGuard busy={busy} />
          <RoomHead
            title="Question"
            actions={
              !locked && (
                <Button
                  color="secondary"
                  disabled={undoable === 0 || form.formState.isDirty}
                  onClick={() => deed({ intent: 'undo' })}
                >
                  Undo
                </Button>
              )
            }
          >
            What is compared, what decides, and what you expect. Written before the start, it is what readers
            trust.
          </RoomHead>
          <SealedBanner trialId={id} sealedAt={sealedAt} />
          <StaleNote stale={stale} />
          <ProtocolPanel protocolId={plan.protocolId} locked={locked} />
          <div className="fields">
            <div className="w12">
              <Field name="question" label="Question" />
            </div>
            <div className="w4">
              <Field name="crop" label="Crop" />
            </div>
            <div className="w3">
              <Field name="unitNoun" label="One unit is a" />
            </div>
            <div className="w2">
              <Field name="code" label="Code" />
            </div>
            <div className="w3">
              <Field name="startDate" label="Start (day 0)" type="date" />
            </div>
            <div className="w6">
              <Field name="prediction" label="What do you expect, and why?" multiline minRows={2} />
            </div>
            <div className="w6">
              <Field
                name="winning"
                label="What counts as winning?"
                multiline
                minRows={2}
                helperText="in one sentence, before anything is sown"
              />
            </div>
            <div className="w6">
              <Field
                name="finishingRule"
                label="When does it end?"
                multiline
                minRows={2}
                helperText="the same day and age for all, said beforehand"
              />
            </div>
            <div className="w6">
              <Field
                name="alsoAsked"
                label="A second question, on the side"
                multiline
                minRows={2}
                helperText="looked at as exploratory; it never decides"
              />
            </div>
            <div className="w6">
              <Field name="scorer" label="Who measures and scores?" />
            </div>
            <div className="w6">
              <Field
                name="cropsWithin"
                label={`Several crops in each ${plan.unitNoun}?`}
                helperText="their names between commas; the second factor"
              />
            </div>
          </div>

          <TraitsSection locked={locked} />
          <DecidesSection unitNoun={plan.unitNoun} />
          <RoundsSection locked={locked} />
          {!locked && (
            <div className="save-bar">
              <Button type="submit" variant="contained" disabled={busy}>
                Save the question
              </Button>
              {form.formState.isDirty && <span className="small quiet">Not saved yet</span>}
            </div>
          )}
        </form>
      </LockedForm>
    </FormProvider>
  );
}
