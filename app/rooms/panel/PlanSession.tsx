import Button from '@mui/material/Button';
import { useState } from 'react';
import { FormProvider, useFieldArray, useWatch } from 'react-hook-form';
import type { TrialState } from '~core/log/state';
import { asksScores, asksTwo, panelKinds, presentations, senses } from '~core/model/panel';
import { sentenceCase } from '~core/quantity/format';
import { Choice, Field, GroupError, Tick } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { TesseraName } from '../../ui/Tessera';
import { Caution } from '../../ui/Caution';
import { cautionsFor } from './cautions';
import { type SessionForm, blankAttribute, blankSession, samplings, sensesOf } from './sessionForm';

interface Props {
  state: TrialState;
  day: number;
  withPhotos: boolean;
  /** null: there is nothing to go back to */
  onCancel: (() => void) | null;
}

/** What is judged, by whom, and how; then the cautions; then it is drawn. */
export function PlanSession({ state, day, withPhotos, onCancel }: Props) {
  const [defaults] = useState(() => blankSession(state, day));
  const { form, busy, onSubmit } = useRecordForm<SessionForm>(defaults);
  const { control } = form;
  const [kind, ticked, presented] = useWatch({ control, name: ['kind', 'senses', 'presented'] });
  const attributes = useFieldArray({ control, name: 'attributes' });
  const cautions = cautionsFor(sensesOf({ senses: ticked }));
  const shownAttributes = asksScores(kind)
    ? kind === 'liking'
      ? attributes.fields.slice(0, 1)
      : attributes.fields
    : [];
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate className="stack">
        <UnsavedGuard busy={busy} />
        <div className="fields">
          <div className="w4">
            <Field name="name" label="Name" fullWidth />
          </div>
          <div className="w8">
            <Field
              name="tasters"
              label="Who takes part"
              fullWidth
              placeholder="Ada, B., C."
              helperText="names or initials between commas; one is enough"
              slotProps={{ inputLabel: { shrink: true } }}
            />
          </div>
          <div className="w6">
            <Choice
              name="kind"
              label="How it asks"
              fullWidth
              options={Object.entries(panelKinds).map(([k, said]) => [k, sentenceCase(said)] as const)}
            />
          </div>
          <div className="w6">
            <Choice
              name="presented"
              label="What lies before them"
              fullWidth
              options={Object.entries(presentations)
                .filter(([k]) => k !== 'photos' || withPhotos)
                .map(([k, said]) => [k, sentenceCase(said)] as const)}
              helperText={
                presented === 'photos'
                  ? 'each unit’s newest photo; none with its label in it'
                  : presented === 'units'
                    ? 'cover the labels; cards with codes stand before them'
                    : undefined
              }
            />
          </div>
        </div>
        <fieldset className="plain">
          <legend className="small quiet">What is judged</legend>
          <div className="inline-row">
            {senses.map((s) => (
              <Tick key={s} name={`senses.${s}`} label={s} />
            ))}
          </div>
          <GroupError name="senses" />
        </fieldset>
        <fieldset className="plain">
          <legend className="small quiet">{asksTwo(kind) ? 'Which two' : 'Of which contenders'}</legend>
          <div className="inline-row">
            {state.plan.treatments.map((t, i) => (
              <Tick key={t.id} name={`contenders.${t.id}`} label={<TesseraName index={i} name={t.name} />} />
            ))}
          </div>
          <GroupError name="contenders" />
        </fieldset>
        <div className="fields">
          {asksTwo(kind) ? (
            <div className="w3">
              <Field
                name="repeats"
                label="Times each is asked"
                numeric
                fullWidth
                helperText="each time with fresh samples"
              />
            </div>
          ) : (
            <div className="w6">
              <Choice
                name="sampling"
                label="Samples"
                fullWidth
                options={Object.entries(samplings).map(([k, said]) => [k, sentenceCase(said)] as const)}
              />
            </div>
          )}
          {(kind === 'pairs' || kind === 'ranking') && (
            <div className="w6">
              <Field
                name="asked"
                label="The question"
                fullWidth
                placeholder={kind === 'pairs' ? 'Which do you like better?' : 'From best to worst'}
                slotProps={{ inputLabel: { shrink: true } }}
              />
            </div>
          )}
          {!asksTwo(kind) && (
            <div className="w6">
              <Choice
                name="guess"
                label="Asked at the end"
                fullWidth
                options={[
                  ['none', 'No guess'],
                  ['same', 'Which two are the same?'],
                  ['which', 'Which is which?'],
                ]}
              />
            </div>
          )}
        </div>
        {shownAttributes.map((f, i) => (
          <div className="fields" key={f.id}>
            <div className="w3">
              <Field name={`attributes.${i}.name`} label="What is scored" fullWidth />
              {kind === 'attributes' && attributes.fields.length > 1 && (
                <Button size="small" color="inherit" onClick={() => attributes.remove(i)}>
                  Take it out
                </Button>
              )}
            </div>
            <div className="w6">
              <Field
                name={`attributes.${i}.scaleText`}
                label="The written scale"
                multiline
                minRows={3}
                fullWidth
                helperText="one step a line, lowest first: “1 I won’t finish it”"
              />
            </div>
            <div className="w3">
              <Choice
                name={`attributes.${i}.better`}
                label="Better is"
                fullWidth
                options={[
                  ['more', 'more'],
                  ['less', 'less'],
                  ['neither', 'neither'],
                ]}
              />
            </div>
          </div>
        ))}
        {kind === 'attributes' && attributes.fields.length < 8 && (
          <div>
            <Button color="secondary" onClick={() => attributes.append(blankAttribute())}>
              Score one thing more
            </Button>
          </div>
        )}
        {!asksTwo(kind) && (
          <Field
            name="words"
            label="Words to tick"
            fullWidth
            helperText="between commas; tasters add their own"
          />
        )}
        {cautions.length > 0 && (
          <Caution>
            <fieldset className="plain">
              <legend>Read and tick before anything is tasted</legend>
              {cautions.map((c, i) => (
                <div key={c}>
                  <Tick name={`read.${i}`} label={c} />
                </div>
              ))}
              <GroupError name="read" />
            </fieldset>
          </Caution>
        )}
        <div className="inline-row">
          <Button type="submit" variant="contained" disabled={busy}>
            Draw the codes and start
          </Button>
          {onCancel && (
            <Button color="inherit" onClick={onCancel}>
              Not now
            </Button>
          )}
        </div>
      </form>
    </FormProvider>
  );
}
