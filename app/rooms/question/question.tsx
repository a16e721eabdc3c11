import Button from '@mui/material/Button';
import { FormProvider, useFieldArray, useWatch } from 'react-hook-form';
import { useLoaderData } from 'react-router';
import { z } from 'zod';
import { Choice, Field, LockedForm } from '../../form/fields';
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
import { RoundRows } from './RoundRows';
import { TraitRow } from './TraitRow';
import { QuestionForm, applyQuestion, newTrait, toQuestionForm } from './questionForm';

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
  const traits = useFieldArray({ control: form.control, name: 'traits', keyName: 'key' });
  const watched = useWatch({ control: form.control });
  const named = (watched.traits ?? []).map((t) => ({ id: t.id ?? '', name: t.name ?? '' }));
  const primary = watched.traits?.find((t) => t.id === watched.primaryTraitId);
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

          <section className="section">
            <h2>What is measured</h2>
            <p className="quiet">
              One trait decides; the others are looked at beside it. Weighed traits go through Weigh-in, the
              rest through Rounds.
            </p>
            <div className="stack">
              {traits.fields.map((f, i) => (
                <TraitRow
                  key={f.key}
                  index={i}
                  decides={watched.traits?.[i]?.id === watched.primaryTraitId}
                  remove={() => traits.remove(i)}
                  locked={locked}
                />
              ))}
              {!locked && (
                <div className="line">
                  <Button
                    variant="outlined"
                    color="secondary"
                    onClick={() => traits.append(newTrait('weight'))}
                  >
                    Add a weight
                  </Button>
                  <Button
                    variant="outlined"
                    color="secondary"
                    onClick={() => traits.append(newTrait('height'))}
                  >
                    Add a height
                  </Button>
                  <Button
                    variant="outlined"
                    color="secondary"
                    onClick={() => traits.append(newTrait('count'))}
                  >
                    Add a count
                  </Button>
                  <Button
                    variant="outlined"
                    color="secondary"
                    onClick={() => traits.append(newTrait('ratio'))}
                  >
                    Add k of n
                  </Button>
                  <Button
                    variant="outlined"
                    color="secondary"
                    onClick={() => traits.append(newTrait('score'))}
                  >
                    Add a score
                  </Button>
                  <Button color="secondary" onClick={() => traits.append(newTrait('blank'))}>
                    Another trait
                  </Button>
                </div>
              )}
            </div>
          </section>

          <section className="section">
            <h2>What decides</h2>
            <p className="quiet">
              The trait the verdict rests on, and the smallest difference a reader would pay or change for.
            </p>
            <div className="fields">
              <div className="w4">
                <Choice
                  name="primaryTraitId"
                  label="Deciding trait"
                  options={[
                    ['', 'not chosen yet'],
                    ...named.map((t) => [t.id, t.name || 'unnamed'] as const),
                  ]}
                />
              </div>
              <div className="w3">
                <Field name="differenceValue" label="Smallest that matters" numeric />
              </div>
              <div className="w3">
                <Choice
                  name="differenceKind"
                  label="in"
                  options={[
                    ['percent', '% of the control'],
                    ['absolute', primary?.unit || 'its own unit'],
                  ]}
                />
              </div>
              <div className="w2">
                <Field name="currency" label="Currency" />
              </div>
              <div className="w4">
                <Field
                  name="cvPercent"
                  label={`Spread from ${plan.unitNoun} to ${plan.unitNoun}`}
                  numeric
                  suffix="%"
                  helperText="what this trait usually shows; for How many, in Rehearsal"
                />
              </div>
            </div>
          </section>

          <section className="section">
            <h2>Rounds</h2>
            <p className="quiet">
              Fixed days on which every unit is visited. All contenders on the same day, in the same light.
            </p>
            <RoundRows traits={named} locked={locked} />
          </section>
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
