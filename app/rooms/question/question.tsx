import Button from '@mui/material/Button';
import { FormProvider, useFieldArray, useWatch } from 'react-hook-form';
import { useLoaderData } from 'react-router';
import { Choice, Field, LockedForm } from '../../form/fields';
import { fieldErrors } from '../../form/schemaFields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { loadTrial, savePlan } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { SealedBanner } from '../SealedBanner';
import type { RoomArgs } from '../roomArgs';
import { RoundRows } from './RoundRows';
import { TraitRow } from './TraitRow';
import { QuestionForm, applyQuestion, newTrait, toQuestionForm } from './questionForm';

export async function clientLoader({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  return { id: row.id, plan: row.plan, sealedAt: state.seal?.at ?? null };
}

export async function clientAction({ params, request }: RoomArgs) {
  const parsed = QuestionForm.safeParse(await request.json());
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const saved = await savePlan(params.trialId, (plan) => applyQuestion(plan, parsed.data));
  return saved.ok
    ? { saved: true, message: 'The question is saved.' }
    : { errors: { question: 'The plan is sealed.' } };
}

export default function QuestionRoom() {
  const { id, plan, sealedAt } = useLoaderData<typeof clientLoader>();
  return <QuestionEditor key={id} id={id} plan={plan} sealedAt={sealedAt} />;
}

function QuestionEditor({ id, plan, sealedAt }: Awaited<ReturnType<typeof clientLoader>>) {
  const { form, busy, onSubmit } = useRecordForm(toQuestionForm(plan));
  const traits = useFieldArray({ control: form.control, name: 'traits', keyName: 'key' });
  const watched = useWatch({ control: form.control });
  const named = (watched.traits ?? []).map((t) => ({ id: t.id ?? '', name: t.name ?? '' }));
  const primary = watched.traits?.find((t) => t.id === watched.primaryTraitId);
  const locked = sealedAt !== null;
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate style={{ maxWidth: '64rem' }}>
          <UnsavedGuard busy={busy} />
          <RoomHead title="Question">
            What is compared, what decides, and what you expect. Written before the start, it is what readers
            trust.
          </RoomHead>
          <SealedBanner trialId={id} sealedAt={sealedAt} />
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
                name="finishingRule"
                label="When does it end?"
                multiline
                minRows={2}
                helperText="the same day and age for all, said beforehand"
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
                <TraitRow key={f.key} index={i} remove={() => traits.remove(i)} locked={locked} />
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
