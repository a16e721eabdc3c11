import { formatFigure } from '~core/quantity/format';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import dayjs from 'dayjs';
import { useEffect, useState } from 'react';
import { numberIn } from '~core/quantity/number';
import { channelShown, channelUnit } from './channelShown';
import type { Instrument, Reading } from './instrument';
import { download } from '../ui/download';
import './InstrumentPart.css';

interface Props {
  instrument: Instrument;
  /** of a stand-in: what its sensor meets; left out where the person says it (a scale's pan) */
  meets?: Readonly<Record<string, number>>;
  /** what the button says */
  takeLabel: string;
  onTake: (reading: Reading & { instrument: string; step: number | null }) => void;
}

/** The face of a connected instrument: figures, whether they have come to rest, its calibration. */
export function InstrumentPart({ instrument, meets, takeLabel, onTake }: Props) {
  const [reading, setReading] = useState<Reading | null>(null);
  // A calibration lives in the instrument; this draws its state anew.
  const [, setDrawn] = useState(0);
  const values = meets && JSON.stringify(meets);
  useEffect(() => {
    if (values !== undefined) {
      instrument.present?.({ values: JSON.parse(values) as Record<string, number> });
    }
    return instrument.listen(setReading);
  }, [instrument, values]);
  const stale = instrument.calibrations.filter((c) => !dayjs().isSame(c.at(), 'day'));
  const called = (channel: string) => instrument.channels.find((c) => c.id === channel)?.name ?? channel;
  const staleNames = stale.map((c) => called(c.channel)).join(' and ');
  const calibration =
    instrument.calibrations.length === 0
      ? ''
      : stale.length > 0
        ? `, ${staleNames} not calibrated that day`
        : ', calibrated that day';
  return (
    <div className="instrument">
      <div className="scale-face">
        <div className="state">
          <span>{instrument.name}</span>
          <span className={reading?.atRest ? 'steady' : undefined} data-testid="at-rest">
            {reading?.atRest ? 'at rest' : 'settling …'}
          </span>
        </div>
        <div className="figures-read">
          {instrument.channels.map((c) => (
            <span key={c.id}>
              {instrument.channels.length > 1 && <small>{c.name}</small>}{' '}
              <output aria-label={`${instrument.name}: ${c.name}`}>
                {reading ? formatFigure(channelShown(c, reading.values[c.id] ?? 0), c.decimals) : '–'}
              </output>{' '}
              <small>{channelUnit(c)}</small>
            </span>
          ))}
        </div>
      </div>
      <div className="inline-row">
        {instrument.channels[0]?.id === 'weight' && instrument.present && meets === undefined && (
          <Pan onLoad={(grams) => instrument.present?.({ values: { weight: grams } })} />
        )}
        <Button
          variant="outlined"
          color="secondary"
          disabled={!reading}
          onClick={() =>
            reading &&
            onTake({
              ...reading,
              step: instrument.step,
              instrument: `${instrument.name}${calibration}${reading.atRest ? '' : ', not at rest'}`,
            })
          }
        >
          {takeLabel}
        </Button>
        {instrument.calibrations.map((c) => (
          <Button
            key={c.channel}
            size="small"
            color="secondary"
            onClick={() => {
              c.set();
              setDrawn((n) => n + 1);
            }}
          >
            Calibrate {called(c.channel)} at {c.standard}
          </Button>
        ))}
        {instrument.writesOut && (
          <Button size="small" color="secondary" onClick={() => writeOut(instrument)}>
            {instrument.writesOut.name}
          </Button>
        )}
        {instrument.calibrations.length > 0 && (
          <span className="small quiet">
            {stale.length === 0
              ? 'calibrated today'
              : `${staleNames} not calibrated today: readings may be a tenth off`}
          </span>
        )}
      </div>
    </div>
  );
}

function writeOut({ writesOut }: Instrument): void {
  if (!writesOut) return;
  const [name, text] = writesOut.file();
  download(new Blob([text], { type: 'text/csv;charset=utf-8' }), name);
}

/** What is laid on the pan of a simulated scale. */
function Pan({ onLoad }: { onLoad: (grams: number) => void }) {
  const [load, setLoad] = useState('');
  return (
    <TextField
      label="Lay on its pan"
      value={load}
      onChange={(e) => {
        setLoad(e.target.value);
        onLoad(Math.max(0, numberIn(e.target.value) ?? 0));
      }}
      sx={{ width: 150 }}
      slotProps={{
        htmlInput: { inputMode: 'decimal' },
        input: { endAdornment: <span className="unit">g</span> },
      }}
    />
  );
}
