import Button from '@mui/material/Button';
import dayjs from 'dayjs';
import { useEffect, useState } from 'react';
import { type MeterReading, standards } from '../../instruments/solutionMeter';
import { simulatedSolutionMeter } from '../../instruments/simulatedSolutionMeter';

/** One meter for the whole app: a calibration lasts from card to card, and wears off. */
const meter = simulatedSolutionMeter();

interface Props {
  /** what the stand-in is dipped into: the estimate of the mix, a usual pH */
  into: { ec: number; ph: number };
  onTake: (reading: MeterReading & { instrument: string }) => void;
}

const names = { ec: 'strength', ph: 'pH' } as const;

/** The face of the connected meter: figures, whether they have come to rest, and its calibration. */
export function MeterPanel({ into, onTake }: Props) {
  const [reading, setReading] = useState<MeterReading | null>(null);
  const [calibrated, setCalibrated] = useState(meter.calibratedAt());
  useEffect(() => {
    meter.dip({ ec: into.ec, ph: into.ph, temperature: 20.5 });
    return meter.listen(setReading);
  }, [into.ec, into.ph]);
  const stale = (['ec', 'ph'] as const).filter((q) => !dayjs().isSame(calibrated[q], 'day'));
  return (
    <div className="meter">
      <div className="scale-face">
        <div className="state">
          <span>{meter.name}</span>
          <span className={reading?.settled ? 'steady' : undefined} data-testid="settled">
            {reading?.settled ? 'at rest' : 'settling …'}
          </span>
        </div>
        <div className="meter-figures">
          {(
            [
              ['EC', reading?.ec.toFixed(2), 'mS/cm'],
              ['pH', reading?.ph.toFixed(2), ''],
              ['water', reading?.temperature.toFixed(1), '°C'],
            ] as const
          ).map(([name, figure, unit]) => (
            <span key={name}>
              <small>{name}</small> <output aria-label={`Meter ${name}`}>{figure ?? '–'}</output>{' '}
              <small>{unit}</small>
            </span>
          ))}
        </div>
      </div>
      <div className="inline-row" style={{ marginTop: '0.5rem' }}>
        <Button
          variant="outlined"
          color="secondary"
          disabled={!reading}
          onClick={() =>
            reading &&
            onTake({
              ...reading,
              instrument: `${meter.name}${stale.length > 0 ? `, ${stale.map((q) => names[q]).join(' and ')} not calibrated that day` : ', calibrated that day'}${reading.settled ? '' : ', not settled'}`,
            })
          }
        >
          Take the reading
        </Button>
        {(['ec', 'ph'] as const).map((q) => (
          <Button
            key={q}
            size="small"
            color="secondary"
            onClick={() => {
              meter.calibrate(q);
              setCalibrated(meter.calibratedAt());
            }}
          >
            Calibrate {names[q]} at {standards[q]}
            {q === 'ec' ? ' mS/cm' : ''}
          </Button>
        ))}
        <span className="small quiet">
          {stale.length === 0
            ? 'calibrated today'
            : `${stale.map((q) => names[q]).join(' and ')} not calibrated today: readings may be a tenth off`}
        </span>
      </div>
    </div>
  );
}
