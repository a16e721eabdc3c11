import Button from '@mui/material/Button';
import { FormProvider } from 'react-hook-form';
import { driftOf } from '~core/mixing/drift';
import { ppmScales } from '~core/mixing/strength';
import { type Vessel, vesselFields } from '~core/mixing/vessels';
import { temperatureUnit } from '~core/quantity/region';
import { Choice, Field } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { Tessera } from '../../ui/Tessera';
import { changeText, readingText } from './readingText';

const quantitiesHere = () =>
  [
    ['ec', 'EC (strength)', 2],
    ['ph', 'pH', 1],
    ['temperature', temperatureUnit(), 1],
  ] as const;

/** Every vessel on a line: first and last reading, the change, and the fields for today's. */
export function AllVessels({ vessels, sealed }: { vessels: readonly Vessel[]; sealed: boolean }) {
  const quantities = quantitiesHere();
  const { form, busy, onSubmit } = useRecordForm(
    {
      intent: 'readings' as const,
      scale: 1 as number,
      instrument: '',
      rows: vessels.map((v) => ({ ...vesselFields(v), ec: '', ph: '', temperature: '' })),
    },
    { clears: true },
  );
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate>
        <UnsavedGuard busy={busy} />
        <div className="scroll-x">
          <table className="ledger as-rows vessels">
            <thead>
              <tr>
                <th>vessel</th>
                {quantities.map(([q, name]) => (
                  <th key={q} className="n">
                    {name}: first, last, change
                  </th>
                ))}
                {sealed && quantities.map(([q, name]) => <th key={q}>{name} now</th>)}
              </tr>
            </thead>
            <tbody>
              {vessels.map((v, i) => (
                <tr key={v.key}>
                  <td>
                    <span className="who">
                      <Tessera index={v.index} size={18} /> {v.name}
                    </span>
                  </td>
                  {quantities.map(([q, name, digits]) => (
                    <td key={q} className="n num small" data-label={name}>
                      {said(v, q, digits)}
                    </td>
                  ))}
                  {sealed &&
                    quantities.map(([q, name]) => (
                      <td key={q} data-label={`${name} now`}>
                        <Field
                          name={`rows.${i}.${q}`}
                          size="small"
                          numeric
                          sx={{ width: '5.2rem' }}
                          slotProps={{
                            htmlInput: { inputMode: 'decimal', 'aria-label': `${name} of ${v.name} now` },
                          }}
                        />
                      </td>
                    ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {sealed && (
          <div className="inline-row" style={{ marginTop: '0.8rem' }}>
            <div style={{ width: '11rem' }}>
              <Choice
                name="scale"
                label="The meter shows"
                options={[['1', 'mS/cm'], ...ppmScales.map((k) => [String(k), `ppm (×${k})`] as const)]}
                size="small"
              />
            </div>
            <Button type="submit" variant="contained" disabled={busy}>
              Write them down
            </Button>
            <span className="small quiet">Empty fields weren’t read; nothing is written for them.</span>
          </div>
        )}
      </form>
    </FormProvider>
  );
}

function said(v: Vessel, quantity: 'ec' | 'ph' | 'temperature', digits: number): string {
  const readings = v.readings[quantity];
  const [first, last] = [readings[0], readings.at(-1)];
  if (!first || !last) return '–';
  const drift = driftOf(readings);
  return drift
    ? [
        readingText(quantity, first.value, digits),
        readingText(quantity, last.value, digits),
        changeText(quantity, drift.change, digits),
      ].join(', ')
    : readingText(quantity, first.value, digits);
}
