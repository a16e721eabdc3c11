import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useState } from 'react';
import { parseDecimal } from '~core/formats/csv';
import type { ScaleReading } from '../../instruments/scale';
import { simulatedScale } from '../../instruments/simulatedScale';
import './weighIn.css';

interface Props {
  onTake: (reading: ScaleReading & { instrument: string; stepG: number }) => void;
}

/** The face of the connected scale, with its steady flag, and the stand-in's pan to lay things on. */
export function ScalePanel({ onTake }: Props) {
  const scale = useMemo(() => simulatedScale(), []);
  const [reading, setReading] = useState<ScaleReading>({ grams: 0, steady: false });
  const [load, setLoad] = useState('');
  useEffect(() => scale.listen(setReading), [scale]);
  return (
    <div style={{ marginTop: '0.6rem' }}>
      <div className="scale-face">
        <div className="state">
          <span>{scale.name}</span>
          <span className={reading.steady ? 'steady' : undefined} data-testid="steady">
            {reading.steady ? 'steady' : 'settling …'}
          </span>
        </div>
        <output aria-label="Scale reads">{reading.grams.toFixed(1)}</output> <span className="num">g</span>
      </div>
      <div className="inline-row" style={{ marginTop: '0.6rem', flexWrap: 'nowrap' }}>
        <TextField
          label="Lay on its pan"
          value={load}
          onChange={(e) => {
            setLoad(e.target.value);
            scale.place(Math.max(0, parseDecimal(e.target.value) ?? 0));
          }}
          slotProps={{
            htmlInput: { inputMode: 'decimal' },
            input: { endAdornment: <span className="unit">g</span> },
          }}
        />
        <Button
          variant="outlined"
          color="secondary"
          onClick={() => onTake({ ...reading, instrument: scale.name, stepG: scale.stepG })}
          sx={{ flex: 'none' }}
        >
          Take reading
        </Button>
      </div>
    </div>
  );
}
