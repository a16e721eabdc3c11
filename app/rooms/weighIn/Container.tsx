import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { formatFigure } from '~core/quantity/format';

interface Props {
  tares: ReadonlyMap<string, number>;
  chosen: string;
  onChoose: (name: string) => void;
  onTare: (name: string, grams: number, instrument: string) => void;
  /** what stands on the pad, to be kept as a tare */
  grossG: number | null;
  instrument: string;
  clear: () => void;
}

/** The container that is weighed along: its tare is read once and kept in the log under its name. */
export function Container({ tares, chosen, onChoose, onTare, grossG, instrument, clear }: Props) {
  const [name, setName] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const keep = () => {
    const title = name.trim() || chosen;
    if (title === '') return setMessage('Name the container, e.g. “Bowl 1”, as written on it.');
    if (grossG === null)
      return setMessage('Put the empty container on the scale, or type its weight on the pad, first.');
    onTare(title, grossG, instrument);
    setName('');
    setMessage(null);
    clear();
  };
  return (
    <section className="section" aria-labelledby="container">
      <h2 id="container">Container</h2>
      <p className="quiet">
        Each container’s tare is weighed once, empty and dry, and kept under the name written on it.
      </p>
      <div className="fields">
        <div className="w4">
          <TextField
            select
            label="Weighed in"
            value={tares.has(chosen) ? chosen : ''}
            onChange={(e) => onChoose(e.target.value)}
          >
            <MenuItem value="">nothing (no tare)</MenuItem>
            {[...tares].map(([n, g]) => (
              <MenuItem key={n} value={n}>
                {n}, {formatFigure(g, 1)} g
              </MenuItem>
            ))}
          </TextField>
        </div>
        <div className="w4">
          <TextField
            label="New or re-weighed container"
            value={name}
            onChange={(e) => setName(e.target.value)}
            error={message !== null}
            helperText={message ?? 'its weight is what stands on the pad'}
          />
        </div>
        <div className="w4">
          <Button variant="outlined" color="secondary" onClick={keep}>
            Keep {grossG === null ? 'the weight' : `${formatFigure(grossG, 1)} g`} as its tare
          </Button>
        </div>
      </div>
    </section>
  );
}
