import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { FormProvider, useWatch } from 'react-hook-form';
import { useLoaderData } from 'react-router';
import { Choice, Field, LockedForm, WhenField } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { usePost } from '../../form/usePost';
import { StaleNote } from '../../form/StaleNote';
import type { Plan } from '~core/model/plan';
import { comparesPeers } from '~core/plan/control';
import { RoomHead } from '../../ui/RoomHead';
import { SealedBanner } from '../SealedBanner';
import { type QuestionData, loadQuestion, questionAction } from './questionData';
import { KindNotes, KindOfTrial } from './ProtocolPart';
import { DecidesFields } from './DecidesFields';
import { TraitsSection } from './TraitsSection';
import { questionRecord } from './questionForm';
import './question.css';
export const clientLoader = loadQuestion;
export const clientAction = questionAction;

export default function QuestionRoom() {
  const data = useLoaderData<typeof clientLoader>();
  return <QuestionEditor key={data.id} {...data} />;
}

function QuestionEditor({ id, plan, sealedAt, undoable }: QuestionData) {
  const formValues = useMemo(() => questionRecord.shown(plan), [plan]);
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(formValues, {
    merges: questionRecord.name,
  });
  const locked = sealedAt !== null;
  const post = usePost();
  const [looked, onChosen] = useState<string | null>(null);
  const chosen = looked ?? plan.protocolId ?? 'blank';
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
                  onClick={() => post({ intent: 'undo' })}
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
          <StaleNote stale={stale} conflicts={conflicts} />
          <div className="fields">
            <div className="w8">
              <Field name="question" label="Question" />
            </div>
            <div className="w4">
              <Choice
                name="asks"
                label="It asks"
                options={[
                  ['best', 'which is best'],
                  ['any', 'whether it does anything'],
                  [
                    'asGood',
                    `whether one is as good as another${comparesPeers(plan) ? '' : ' (a reference, or the control)'}`,
                  ],
                  ['claim', 'whether the label keeps its word'],
                ]}
              />
            </div>
            <div className="w4">
              <KindOfTrial protocolId={plan.protocolId} {...{ chosen, onChosen, locked }} />
            </div>
            <div className="w3">
              <Field name="crop" label="Crop" />
            </div>
            <div className="w2">
              <Field name="unitNoun" label="One unit is a" helperText={sayHowMany(plan)} />
            </div>
            <div className="w3">
              <WhenField name="startDate" label="Start (day 0)" />
            </div>
            <DecidesFields ofAll={comparesPeers(plan) ? '% of the mean' : '% of control'} />
            <div className="w4">
              <Field name="prediction" label="What do you expect, and why?" multiline minRows={2} />
            </div>
            <div className="w4">
              <Field name="winning" label="What counts as winning?" multiline minRows={2} />
            </div>
            <div className="w4">
              <Field name="finishingRule" label="When does it end?" multiline minRows={2} />
            </div>
          </div>
          <KindNotes chosen={chosen} />
          <TraitsSection locked={locked} busy={busy} />
          <div className="fields section">
            <div className="w4">
              <Field
                name="alsoAsked"
                label="A second question, on the side"
                helperText="looked at as exploratory; it never decides"
              />
            </div>
            <div className="w3">
              <Field name="scorer" label="Who measures and scores?" />
            </div>
            <div className="w3">
              <CropsWithin />
            </div>
            <div className="w2">
              <Field name="currency" label="Currency" />
            </div>
          </div>
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

/** How many stand in the layout; they are laid out there. */
function sayHowMany(plan: Plan): string | undefined {
  const counts = new Set(plan.treatments.map((t) => plan.units.filter((u) => u.treatmentId === t.id).length));
  const [each] = counts;
  if (plan.units.length === 0 || each === undefined) return undefined;
  return counts.size === 1 ? `${each} of each in Layout` : `${plan.units.length} in Layout`;
}

/** The second factor, asked with the unit's name as it is typed above. */
function CropsWithin() {
  const unitNoun = (useWatch({ name: 'unitNoun' }) as string) || 'unit';
  return (
    <Field
      name="cropsWithin"
      label={`Several crops in each ${unitNoun}?`}
      helperText="between commas; the second factor"
    />
  );
}
