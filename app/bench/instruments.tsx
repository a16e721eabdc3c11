import { formatFigure } from '~core/quantity/format';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useEffect, useRef, useState } from 'react';
import { atHand, keepAtHand } from '../instruments/atHand';
import { InstrumentPart } from '../instruments/InstrumentPart';
import { type Driver, type Instrument, type Measures, measures } from '../instruments/instrument';
import { drivers } from '../instruments/registry';
import { letStandIn, standsIn } from '../instruments/standIns';
import { benchName } from '../store/bench';
import { RoomHead } from '../ui/RoomHead';

/** What stands in for the world before each stand-in’s sensor. */
const tryOn: Partial<Record<Measures, Readonly<Record<string, number>>>> = {
  solution: { ec: 1.4, ph: 6.2, temperature: 20.5 },
  light: {},
  air: {},
};

/** Every instrument that can be connected, each tried by itself. */
export default function Instruments() {
  return (
    <>
      <RoomHead title="Instruments">
        What can be read without typing. Stand-ins ship with Palazzo, for trying it without hardware: they are
        in the rooms only where that is chosen here. Real ones are opened here or where they are used.
      </RoomHead>
      {(Object.keys(measures) as Measures[]).map((m) => (
        <section key={m} className="section" aria-label={measures[m]}>
          <h2>{measures[m]}</h2>
          {drivers
            .filter((d) => d.measures === m)
            .sort((a, b) => Number(a.simulated) - Number(b.simulated))
            .map((d) => (
              <OneInstrument key={d.id} driver={d} />
            ))}
          {m === 'picture' && (
            <p className="small quiet">
              The device’s own camera is opened where it is used: “From the same spot …” under Photos, “By
              camera …” in a walk. It stays on this device.
            </p>
          )}
          {m === 'weight' && (
            <p className="small quiet">
              A scale on a cable prints a number and a unit on each line (9600 baud): “112.4 g”.
            </p>
          )}
          {m === 'solution' && (
            <p className="small quiet">
              A meter on a cable prints its figures with their units: “1.42 mS/cm pH 6.1 21.4 °C”. Stand-ins
              and real meters are calibrated each day they are used.
            </p>
          )}
        </section>
      ))}
    </>
  );
}

function OneInstrument({ driver }: { driver: Driver }) {
  const [instrument, setInstrument] = useState<Instrument | null>(
    () => (driver.open && atHand(driver.measures)) ?? null,
  );
  const [inRooms, setInRooms] = useState(() => standsIn(driver.id));
  const [taken, setTaken] = useState('');
  const [fault, setFault] = useState('');
  const why = driver.unavailable();
  const connect = async () => {
    if (driver.connect) return setInstrument(driver.connect({ areas: [] }));
    const opened = await driver.open?.();
    if (!opened) return;
    if (opened.ok) setInstrument(keepAtHand(driver.measures, opened.value));
    setFault(opened.ok ? '' : opened.error);
  };
  const putAway = () => {
    void instrument?.close?.();
    setInstrument(null);
  };
  return (
    <div className="stack tight" style={{ margin: '0.5rem 0' }}>
      <div className="inline-row">
        <strong>{driver.name}</strong>
        {why === null ? (
          <Button
            size="small"
            variant="outlined"
            color="secondary"
            onClick={() => (instrument ? putAway() : void connect())}
            aria-label={`${instrument ? 'Put away' : driver.simulated ? 'Try' : 'Connect'} ${driver.name.toLowerCase()}`}
          >
            {instrument ? 'Put away' : driver.simulated ? 'Try' : 'Connect'}
          </Button>
        ) : (
          <span className="small quiet">{why}</span>
        )}
        {fault && (
          <span role="alert" className="small">
            {fault}
          </span>
        )}
      </div>
      {driver.simulated && driver.measures !== 'picture' && driver.measures !== 'code' && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={inRooms}
              disabled={benchName() === 'demo'}
              onChange={(e) => {
                letStandIn(driver.id, e.target.checked);
                setInRooms(e.target.checked);
              }}
            />
          }
          label={`${driver.name} in the rooms too${
            benchName() === 'demo' ? ', as all of them on this bench' : ': its readings are made up'
          }`}
        />
      )}
      {instrument?.show && <Picture show={instrument.show} name={instrument.name} />}
      {instrument && instrument.channels.length > 0 && (
        <InstrumentPart
          instrument={instrument}
          meets={tryOn[driver.measures]}
          takeLabel="Take a reading"
          onTake={(r) =>
            setTaken(
              `${instrument.channels.map((c) => `${formatFigure(r.values[c.id] ?? 0, c.decimals)} ${c.unit}`.trim()).join(', ')}${r.atRest ? '' : ', not at rest'}`,
            )
          }
        />
      )}
      {taken && instrument && (
        <p className="small" role="status">
          Read: {taken}. Readings tried here aren’t kept.
        </p>
      )}
    </div>
  );
}

function Picture({ show, name }: { show: NonNullable<Instrument['show']>; name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => show(canvas.current!), [show]);
  return (
    <canvas ref={canvas} aria-label={`Picture of the ${name}`} style={{ maxWidth: '24rem', width: '100%' }} />
  );
}
