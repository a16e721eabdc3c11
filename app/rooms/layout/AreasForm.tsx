import Button from '@mui/material/Button';
import { useEffect } from 'react';
import { FormProvider, useFieldArray } from 'react-hook-form';
import { type Area, areaKinds } from '~core/model/plan';
import { Choice, Field, GroupError, LockedForm } from '../../form/fields';
import { fieldText } from '../../form/schemaFields';
import { useRecordForm } from '../../form/useRecordForm';
import { type AreaFormInput, emptyArea } from './layoutActions';

const toForm = (areas: readonly Area[]): AreaFormInput['areas'] =>
  areas.map((a) => ({
    id: a.id as string,
    name: a.name,
    kind: a.kind,
    rows: String(a.rows),
    columns: String(a.columns),
    widthCm: fieldText(a.widthCm),
    depthCm: fieldText(a.depthCm),
  }));

/** The places of a trial and their grid. */
export function AreasForm({ areas, locked }: { areas: readonly Area[]; locked: boolean }) {
  const { form, busy, onSubmit } = useRecordForm<AreaFormInput>({
    intent: 'areas',
    areas: areas.length > 0 ? toForm(areas) : [emptyArea(1)],
  });
  const { reset } = form;
  // An undo changes the places from outside.
  useEffect(() => {
    if (areas.length > 0) reset({ intent: 'areas', areas: toForm(areas) });
  }, [areas, reset]);
  const rows = useFieldArray({ control: form.control, name: 'areas', keyName: 'key' });
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate className="section">
          <h2>Places</h2>
          <p className="quiet">
            Each shelf level, bench or bed as a grid: row 1 is at the back, column 1 at the left.
          </p>
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
                <div className="w3" style={{ display: 'flex', gap: '0.5rem' }}>
                  <Field name={`areas.${i}.rows`} label="Rows" numeric />
                  <Field name={`areas.${i}.columns`} label="Columns" numeric />
                </div>
                <div className="w3" style={{ display: 'flex', gap: '0.5rem' }}>
                  <Field name={`areas.${i}.widthCm`} label="Width" numeric suffix="cm" />
                  <Field name={`areas.${i}.depthCm`} label="Depth" numeric suffix="cm" />
                </div>
                <div>
                  {!locked && rows.fields.length > 1 && (
                    <Button
                      color="inherit"
                      onClick={() => rows.remove(i)}
                      aria-label={`Remove place ${i + 1}`}
                    >
                      Remove
                    </Button>
                  )}
                </div>
              </div>
            ))}
            <GroupError name="areas" />
            {!locked && (
              <div className="line">
                <Button type="submit" variant="outlined" color="secondary" disabled={busy}>
                  Save the places
                </Button>
                <Button color="secondary" onClick={() => rows.append(emptyArea(rows.fields.length + 1))}>
                  Add a place
                </Button>
              </div>
            )}
          </div>
        </form>
      </LockedForm>
    </FormProvider>
  );
}
