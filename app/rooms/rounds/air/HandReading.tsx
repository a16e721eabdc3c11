import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { AreaId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { numberIn } from '~core/quantity/number';
import { formatFigure } from '~core/quantity/format';
import { temperatureUnit } from '~core/quantity/region';
import { otherDegrees, parseTemperature, temperatureShown } from '~core/quantity/temperature';
import { LeaveGuard } from '../../../form/UnsavedGuard';
import { InstrumentDrawer } from '../../../instruments/InstrumentDrawer';
import { channelShown } from '../../../instruments/channelShown';
import { PickOne } from '../../../ui/PickOne';
import { unitsHere } from '../../../ui/region';
import { useNotice } from '../../../ui/Notices';
import { type AirQuantity, keepAirReadings } from './keepAirReadings';

const fields = [
  ['temperature', 'Air', '', -30, 70],
  ['humidity', 'Humidity', '%', 0, 100],
  ['light', 'Light (PPFD)', 'µmol m⁻² s⁻¹', 0, 3000],
] as const satisfies readonly (readonly [AirQuantity, string, string, number, number])[];

const none: Record<AirQuantity, string> = { temperature: '', humidity: '', light: '' };

const unitOf = (id: AirQuantity, unit: string) => (id === 'temperature' ? temperatureUnit() : unit);

/** A typed figure in the unit it is kept in: temperatures may be in °F. */
const readingOf = (id: AirQuantity, text: string) =>
  id === 'temperature' ? parseTemperature(text) : numberIn(text);

/** What is wrong with a typed figure; empty where it can be kept or nothing is typed. */
function faultOf(text: string, id: AirQuantity, unit: string, low: number, high: number): string {
  if (text.trim() === '') return '';
  const value = readingOf(id, text);
  if (value === null) return `“${text.trim()}” isn’t a number.`;
  const limit = (x: number) => formatFigure(id === 'temperature' ? temperatureShown(x) : x, 0);
  return value < low || value > high ? `Between ${limit(low)} and ${limit(high)} ${unitOf(id, unit)}.` : '';
}

/** A reading of a place’s air and light, typed or taken from a hand-held instrument; it joins what loggers wrote. */
export function HandReading({ plan, onKept }: { plan: Plan; onKept: () => void }) {
  const notice = useNotice();
  const [place, setPlace] = useState<AreaId | ''>(plan.areas[0]?.id ?? '');
  const [typed, setTyped] = useState(none);
  const [readBy, setReadBy] = useState('');
  const [tried, setTried] = useState(false);
  const faults = fields.map(([id, , unit, low, high]) => faultOf(typed[id], id, unit, low, high));
  const some = Object.values(typed).some((t) => t.trim() !== '');
  const keep = async () => {
    setTried(true);
    if (!some || faults.some(Boolean)) return;
    const refusal = await keepAirReadings(
      plan,
      place === '' ? null : place,
      fields.flatMap(([quantity]) => {
        const value = readingOf(quantity, typed[quantity]);
        return value === null ? [] : [{ quantity, value }];
      }),
      readBy || 'typed',
    );
    notice({ text: refusal ?? 'The reading is in the log.' });
    if (refusal) return;
    setTyped(none);
    setReadBy('');
    setTried(false);
    onKept();
  };
  return (
    <section className="section no-print" aria-labelledby="by-hand">
      <LeaveGuard unsaved={some} what="The reading you typed" />
      <h2 id="by-hand">Read by hand</h2>
      <div className="inline-row" style={{ marginTop: '0.8rem', alignItems: 'start' }}>
        <PickOne<AreaId | ''>
          label="Where"
          value={place}
          options={[...plan.areas.map((a) => [a.id, a.name] as const), ['', 'the bench'] as const]}
          onPick={setPlace}
          sx={{ width: 180 }}
        />
        {fields.map(([id, name, unit], i) => (
          <TextField
            key={id}
            size="small"
            label={name}
            value={typed[id]}
            onChange={(e) => {
              setTyped({ ...typed, [id]: e.target.value });
              setReadBy('');
            }}
            error={faults[i] !== '' || (tried && !some)}
            helperText={
              faults[i] ||
              (tried && !some && i === 0 && 'Type one figure at least.') ||
              (id === 'temperature' && unitsHere().inches && otherDegrees())
            }
            slotProps={{
              inputLabel: { shrink: true },
              htmlInput: { inputMode: id === 'temperature' && unitsHere().inches ? 'text' : 'decimal' },
              input: {
                endAdornment: (
                  <span className="unit" style={{ whiteSpace: 'nowrap' }}>
                    {unitOf(id, unit)}
                  </span>
                ),
              },
            }}
            sx={{ width: id === 'light' ? 210 : 130 }}
          />
        ))}
        <Button variant="outlined" onClick={() => void keep()}>
          Keep the reading
        </Button>
        <InstrumentDrawer
          measures="air"
          called="instrument"
          meets={ITSELF}
          takeLabel="Take the reading"
          onTake={(r, { channels }) => {
            setTyped({
              ...typed,
              ...Object.fromEntries(
                channels.map((c) => [c.id, formatFigure(channelShown(c, r.values[c.id] ?? 0), c.decimals)]),
              ),
            });
            setReadBy(r.instrument);
          }}
        />
      </div>
    </section>
  );
}

/** The air is what it is: nothing is put before the sensor. */
const ITSELF: Readonly<Record<string, number>> = {};
