import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { newId } from '~core/model/newId';
import type { PlacesElsewhere } from './layoutData';
import { useMemo } from 'react';
import { FormProvider, useFieldArray, useWatch } from 'react-hook-form';
import { type Plan, areaKinds } from '~core/model/plan';
import { withUnit } from '~core/quantity/sizeText';
import { listNames, plural, sentenceCase } from '~core/quantity/format';
import { Choice, Field, GroupError, LockedForm } from '../../form/fields';
import { SizesChoice } from '../../form/SizesChoice';
import { StaleNote } from '../../form/StaleNote';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { areasRecord, emptyArea, usualKind } from './layoutRecords';

/** The places of a trial, their grid and real size, and the size and shape of one unit. */
export function AreasForm({
  plan,
  locked,
  elsewhere,
}: {
  plan: Plan;
  locked: boolean;
  /** places of other trials, to be taken over */
  elsewhere: readonly PlacesElsewhere[];
}) {
  const formValues = useMemo(() => areasRecord.shown(plan), [plan]);
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(formValues, {
    merges: areasRecord.name,
  });
  const inches = useWatch({ control: form.control, name: 'inches' }) ?? false;
  const round = useWatch({ control: form.control, name: 'unitShape' }) === 'round';
  const length = (text: string) => withUnit(text, 'length', inches);
  const rows = useFieldArray({ control: form.control, name: 'areas', keyName: 'key' });
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate className="section">
          <UnsavedGuard busy={busy} />
          <StaleNote stale={stale} conflicts={conflicts} />
          <h2>Areas</h2>
          <p className="quiet">
            Row 1 is at the back, column 1 at the left. With width and depth the plan is drawn to scale.
          </p>
          <div className="fields" style={{ marginBottom: '0.8rem' }}>
            <div className="w3">
              <SizesChoice />
            </div>
            {!locked && elsewhere.length > 0 && (
              <div className="w6">
                <TextField
                  select
                  label="As in another trial"
                  value=""
                  onChange={(e) => {
                    const { areas } = elsewhere[Number(e.target.value)]!;
                    form.setValue(
                      'areas',
                      areasRecord.shown({ ...plan, inches: inches || undefined, areas }).areas.map((a) => ({
                        ...a,
                        id: newId<string>(),
                      })),
                      { shouldDirty: true },
                    );
                  }}
                >
                  {elsewhere.map((p, i) => (
                    <MenuItem key={p.from} value={i} sx={{ whiteSpace: 'normal', maxWidth: 520 }}>
                      {listNames(p.areas.map((a) => a.name))} – {p.from}
                    </MenuItem>
                  ))}
                </TextField>
              </div>
            )}
          </div>
          <div className="stack">
            {rows.fields.map((f, i) => (
              <div className="fields" key={f.key}>
                <div className="w3">
                  <Field name={`areas.${i}.name`} label="Name" />
                </div>
                <div className="w2">
                  <Choice
                    name={`areas.${i}.kind`}
                    label="Kind"
                    options={areaKinds.map((k) => [k, k] as const)}
                  />
                </div>
                <div className="w3 field-pair">
                  <Field name={`areas.${i}.rows`} label="Rows" numeric />
                  <Field name={`areas.${i}.columns`} label="Columns" numeric />
                </div>
                <div className="w3 field-pair">
                  <Field
                    name={`areas.${i}.widthCm`}
                    label="Width"
                    figures
                    bareUnitOf={length}
                    suffix={inches ? undefined : 'cm'}
                    placeholder={inches ? '4 ft' : 'or 5 ft'}
                  />
                  <Field
                    name={`areas.${i}.depthCm`}
                    label="Depth"
                    figures
                    bareUnitOf={length}
                    suffix={inches ? undefined : 'cm'}
                    placeholder={inches ? '4 ft' : 'or 5 ft'}
                  />
                </div>
                <div>
                  {!locked && rows.fields.length > 1 && (
                    <Button
                      color="inherit"
                      onClick={() => rows.remove(i)}
                      aria-label={`Remove area ${i + 1}`}
                    >
                      Remove
                    </Button>
                  )}
                </div>
              </div>
            ))}
            <GroupError name="areas" />
            {!locked && (
              <div>
                <Button
                  color="secondary"
                  onClick={() =>
                    rows.append(
                      emptyArea(
                        rows.fields.length + 1,
                        rows.fields.length === 0
                          ? usualKind(plan)
                          : form.getValues(`areas.${rows.fields.length - 1}.kind`),
                      ),
                    )
                  }
                >
                  Add an area
                </Button>
              </div>
            )}
            <h3>{sentenceCase(plural(plan.unitNoun))}</h3>
            <div className="fields">
              <div className="w3">
                <Choice
                  name="unitShape"
                  label="Shape from above"
                  options={[
                    ['rectangle', 'rectangle'],
                    ['round', 'round'],
                  ]}
                />
              </div>
              <div className="w4 field-pair">
                <Field
                  name="unitWidthCm"
                  label={round ? `Across a ${plan.unitNoun}` : `Width of a ${plan.unitNoun}`}
                  figures
                  bareUnitOf={length}
                  suffix={inches ? undefined : 'cm'}
                  placeholder={inches ? '10 in' : 'or 10 in'}
                />
                {!round && (
                  <Field
                    name="unitDepthCm"
                    label="Front to back"
                    figures
                    bareUnitOf={length}
                    suffix={inches ? undefined : 'cm'}
                    placeholder={inches ? '4 ft' : 'or 5 ft'}
                  />
                )}
              </div>
              <div className="w3">
                <Field
                  name="spares"
                  label="Spares grown beside"
                  numeric
                  helperText="seedlings or whole ones, for early failures"
                />
              </div>
            </div>
            {!locked && (
              <div>
                <Button type="submit" variant="contained" disabled={busy}>
                  Save the areas
                </Button>
              </div>
            )}
          </div>
        </form>
      </LockedForm>
    </FormProvider>
  );
}
