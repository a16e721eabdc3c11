import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { FormProvider, useWatch } from 'react-hook-form';
import { ppmScales } from '~core/mixing/strength';
import { Field } from '../../form/fields';
import { useRecordForm } from '../../form/useRecordForm';
import { MeterPanel } from './MeterPanel';
import type { MixingData } from './mixing';
import { type Vessel, vesselFields } from './vessels';

/** A reading of a vessel, in mS/cm or on a meter's ppm scale; strength is always kept as EC. */
export function ReadingForm({ data, vessel }: { data: MixingData; vessel: Vessel }) {
  const [meter, setMeter] = useState(false);
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'reading' as const,
    ...vesselFields(vessel),
    ec: '',
    ph: '',
    temperature: '',
    instrument: '',
    scale: 1 as 1 | (typeof ppmScales)[number],
  });
  const scale = useWatch({ control: form.control, name: 'scale' });
  const last = (q: 'ec' | 'ph') => vessel.readings[q].at(-1)?.value;
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate className="stack tight">
        <h2>A reading</h2>
        <div className="fields">
          <div className="w4">
            <Field name="ec" label="Strength" suffix={scale === 1 ? 'mS/cm' : 'ppm'} numeric size="small" />
          </div>
          <div className="w4">
            <TextField
              select
              fullWidth
              size="small"
              label="Meter shows"
              value={scale}
              onChange={(e) => form.setValue('scale', Number(e.target.value) as typeof scale)}
            >
              <MenuItem value={1}>mS/cm</MenuItem>
              {ppmScales.map((s) => (
                <MenuItem key={s} value={s}>
                  ppm, ×{s}
                </MenuItem>
              ))}
            </TextField>
          </div>
          <div className="w4">
            <Field name="ph" label="pH" numeric size="small" />
          </div>
          <div className="w4">
            <Field name="temperature" label="Temperature" suffix="°C" numeric size="small" />
          </div>
          <div className="w4">
            <Button type="submit" variant="contained" disabled={busy}>
              Write it down
            </Button>
          </div>
          <div className="w4">
            <Button color="secondary" onClick={() => setMeter(!meter)} aria-expanded={meter}>
              {meter ? 'Meter away' : 'Use the meter'}
            </Button>
          </div>
        </div>
        {meter && (
          <MeterPanel
            into={{ ec: last('ec') ?? data.plan.mixing.water.ec ?? 1, ph: last('ph') ?? 6.2 }}
            onTake={(r) => {
              form.setValue('scale', 1);
              form.setValue('ec', r.ec.toFixed(2));
              form.setValue('ph', r.ph.toFixed(2));
              form.setValue('temperature', r.temperature.toFixed(1));
              form.setValue('instrument', r.instrument);
            }}
          />
        )}
      </form>
    </FormProvider>
  );
}
