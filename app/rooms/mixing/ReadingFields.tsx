import { temperatureUnit } from '~core/quantity/region';
import { otherDegrees } from '~core/quantity/temperature';
import { readingText } from './readingText';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { ReactNode } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { ppmScales } from '~core/mixing/strength';
import { Field } from '../../form/fields';
import { unitsHere } from '../../ui/region';
import { InstrumentDrawer } from '../../instruments/InstrumentDrawer';

/** What a form with a reading in it begins with. */
export const noReading = {
  ec: '',
  ph: '',
  temperature: '',
  instrument: '',
  /** 1: mS/cm; else the meter's ppm for 1 mS/cm */
  scale: 1 as 1 | (typeof ppmScales)[number],
};

/**
 * Strength, pH and temperature of the form around it: typed, on the meter’s own scale, or taken from the
 * connected meter.
 *
 * @param into what the stand-in of the meter is dipped into
 * @param children buttons that stand in the same row
 */
export function ReadingFields({
  into,
  children,
}: {
  into: { ec: number; ph: number };
  children?: ReactNode;
}) {
  const { control, setValue } = useFormContext<typeof noReading>();
  const scale = useWatch({ control, name: 'scale' });
  return (
    <>
      <div className="fields figures">
        <div>
          <Field
            name="ec"
            label="EC (strength)"
            suffix={scale === 1 ? 'mS/cm' : 'ppm'}
            numeric
            size="small"
          />
        </div>
        <div>
          <TextField
            select
            fullWidth
            size="small"
            label="Meter shows"
            value={scale}
            onChange={(e) => setValue('scale', Number(e.target.value) as typeof scale)}
          >
            <MenuItem value={1}>mS/cm</MenuItem>
            {ppmScales.map((s) => (
              <MenuItem key={s} value={s}>
                ppm, ×{s}
              </MenuItem>
            ))}
          </TextField>
        </div>
        <div>
          <Field name="ph" label="pH" numeric size="small" />
        </div>
        <div>
          <Field
            name="temperature"
            label="Temperature"
            suffix={temperatureUnit()}
            figures
            size="small"
            helperText={unitsHere().inches ? otherDegrees() : undefined}
          />
        </div>
        <div className="all inline-row">
          {children}
          <InstrumentDrawer
            measures="solution"
            called="meter"
            meets={into}
            takeLabel="Take the reading"
            onTake={(r, { channels }) => {
              setValue('scale', 1);
              for (const { id, decimals } of channels) {
                if (id === 'ec' || id === 'ph' || id === 'temperature') {
                  setValue(id, readingText(id, r.values[id] ?? 0, decimals), { shouldDirty: true });
                }
              }
              setValue('instrument', r.instrument);
            }}
          />
        </div>
      </div>
    </>
  );
}
