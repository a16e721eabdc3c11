import Button from '@mui/material/Button';
import { FormProvider } from 'react-hook-form';
import { useLoaderData } from 'react-router';
import { z } from 'zod';
import { Field, LockedForm } from '../../form/fields';
import { fieldErrors } from '../../form/schemaFields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { protocolOf } from '~core/schedule/protocols';
import { useDeed } from '../../form/useDeed';
import {
  loadTrial,
  notePlanReplaced,
  savePlan,
  timesReplaced,
  undoDepth,
  undoPlan,
} from '../../store/trials';
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
    undoable: state.seal ? 0 : undoDepth(row.id),
    replaced: timesReplaced(row.id),
  };
}

const ProtocolDeed = z.object({ intent: z.literal('protocol'), protocolId: z.string() });
const UndoDeed = z.object({ intent: z.literal('undo') });

export async function clientAction({ params, request }: RoomArgs) {
  const data: unknown = await request.json();
  const deed = ProtocolDeed.safeParse(data);
  if (deed.success) return fillFrom(params.trialId, deed.data.protocolId);
  if (UndoDeed.safeParse(data).success) {
    await undoPlan(params.trialId);
    announce('Taken back.');
    return { saved: true };
  }
  const parsed = QuestionForm.safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const saved = await savePlan(params.trialId, (plan) => applyQuestion(plan, parsed.data));
  return saved.ok
    ? { saved: true, message: 'The question is saved.' }
    : { errors: { question: 'The plan is sealed.' } };
}

async function fillFrom(trialId: string | undefined, protocolId: string) {
  const protocol = protocolOf(protocolId);
  if (!protocol) return { errors: { protocolId: 'There is no such protocol.' } };
  const { state } = await loadTrial(trialId);
  if (state.observations.length > 0) {
    announce('Values are logged already; traits can’t be replaced.');
    return { errors: { protocolId: 'Values are logged already.' } };
  }
  const saved = await savePlan(trialId, (plan) => applyProtocol(plan, protocol));
  if (saved.ok) notePlanReplaced(trialId);
  announce(saved.ok ? 'The plan is filled from the protocol; change what you like.' : 'The plan is sealed.');
  return saved.ok ? { saved: true } : { errors: { protocolId: 'The plan is sealed.' } };
}

export default function QuestionRoom() {
  const data = useLoaderData<typeof clientLoader>();
  // A protocol or an undo replaces the plan: the form begins anew with it.
  return <QuestionEditor key={`${data.id}/${data.replaced}`} {...data} />;
}

function QuestionEditor({ id, plan, sealedAt, undoable }: Awaited<ReturnType<typeof clientLoader>>) {
  const { form, busy, onSubmit } = useRecordForm(toQuestionForm(plan));
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
