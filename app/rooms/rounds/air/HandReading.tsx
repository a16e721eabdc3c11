import Button from '@mui/material/Button';
import { useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { z } from 'zod';
import { AreaId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { temperatureUnit } from '~core/quantity/region';
import { otherDegrees, temperatureShown } from '~core/quantity/temperature';
import { Choice, Field } from '../../../form/fields';
import { optionalNumber, optionalTemperature, orNull } from '../../../form/schemaFields';
import { LeaveGuard } from '../../../form/UnsavedGuard';
import { useTypedForm } from '../../../form/useTypedForm';
import { InstrumentDrawer } from '../../../instruments/InstrumentDrawer';
import { channelShown } from '../../../instruments/channelShown';
import { unitsHere } from '../../../ui/region';
import { useNotice } from '../../../ui/Notices';
import { type AirQuantity, keepAirReadings } from './keepAirReadings';

const fields = [
  ['temperature', 'Air', '', -30, 70],
  ['humidity', 'Humidity', '%', 0, 100],
  ['light', 'Light (PPFD)', 'µmol m⁻² s⁻¹', 0, 3000],
] as const satisfies readonly (readonly [AirQuantity, string, string, number, number])[];

const unitOf = (id: AirQuantity, unit: string) => (id === 'temperature' ? temperatureUnit() : unit);

/** A figure in the unit it is kept in, within what can be; temperatures may be typed in °F. */
const reading = ([id, , unit, low, high]: (typeof fields)[number]) => {
  const limit = (x: number) => formatFigure(id === 'temperature' ? temperatureShown(x) : x, 0);
  const error = () => `Between ${limit(low)} and ${limit(high)} ${unitOf(id, unit)}.`;
  const one = id === 'temperature' ? optionalTemperature() : optionalNumber();
  return one.pipe(z.number().min(low, { error }).max(high, { error }).nullable());
};

const Typed = z
  .object({
    place: orNull(AreaId),
    temperature: reading(fields[0]),
    humidity: reading(fields[1]),
    light: reading(fields[2]),
  })
  .refine((f) => fields.some(([id]) => f[id] !== null), {
    path: ['temperature'],
    message: 'Type one figure at least.',
  });

const figuresOf = (typed: z.input<typeof Typed>) => fields.map(([id]) => typed[id]).join(' ');

/** A reading of a place’s air and light, typed or taken from a hand-held instrument; it joins what loggers wrote. */
export function HandReading({ plan, onKept }: { plan: Plan; onKept: () => void }) {
  const notice = useNotice();
  const [taken, setTaken] = useState<{ by: string; figures: string } | null>(null);
  const places = [...plan.areas.map((a) => [a.id, a.name] as const), ['', 'the bench'] as const];
  const { form, busy, onSubmit } = useTypedForm(
    Typed,
    { place: places[0]![0], temperature: '', humidity: '', light: '' },
    async ({ place, ...read }, typed) => {
      const refusal = await keepAirReadings(
        plan,
        place,
        fields.flatMap(([quantity]) => {
          const value = read[quantity];
          return value === null ? [] : [{ quantity, value }];
        }),
        // Typed over, it is no longer the instrument's.
        taken && figuresOf(typed) === taken.figures ? taken.by : 'typed',
      );
      notice({ text: refusal ?? 'The reading is in the log.' });
      if (!refusal) onKept();
      return !refusal;
    },
    (typed) => ({ ...typed, temperature: '', humidity: '', light: '' }),
  );
  const { temperature, humidity, light } = form.formState.dirtyFields;
  return (
    <section className="section no-print" aria-labelledby="by-hand">
      <LeaveGuard unsaved={Boolean(temperature || humidity || light)} what="The reading you typed" />
      <h2 id="by-hand">Read by hand</h2>
      <FormProvider {...form}>
        <form
          onSubmit={onSubmit}
          noValidate
          className="inline-row"
          style={{ marginTop: '0.8rem', alignItems: 'start' }}
        >
          <Choice name="place" label="Where" size="small" options={places} sx={{ width: 180 }} />
          {fields.map(([id, name, unit]) => (
            <Field
              key={id}
              name={id}
              size="small"
              label={name}
              suffix={unitOf(id, unit)}
              helperText={id === 'temperature' && unitsHere().inches ? otherDegrees() : undefined}
              {...(id === 'temperature' && unitsHere().inches ? { figures: true } : { numeric: true })}
              sx={{ width: id === 'light' ? 210 : 130 }}
            />
          ))}
          <Button type="submit" variant="outlined" disabled={busy}>
            Keep the reading
          </Button>
          <InstrumentDrawer
            measures="air"
            called="instrument"
            meets={ITSELF}
            takeLabel="Take the reading"
            onTake={(r, { channels }) => {
              for (const c of channels)
                form.setValue(
                  c.id as AirQuantity,
                  formatFigure(channelShown(c, r.values[c.id] ?? 0), c.decimals),
                  { shouldDirty: true },
                );
              setTaken({ by: r.instrument, figures: figuresOf(form.getValues()) });
            }}
          />
        </form>
      </FormProvider>
    </section>
  );
}

/** The air is what it is: nothing is put before the sensor. */
const ITSELF: Readonly<Record<string, number>> = {};
