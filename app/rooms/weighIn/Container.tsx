import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { formatFigure } from '~core/quantity/format';
import { PickOne } from '../../ui/PickOne';

/** How a series is weighed; asked once. */
export const manners = {
  same: 'all in the same container',
  own: 'each in a container of its own',
  pan: 'straight on the pan, zeroed',
} as const;
export type Manner = keyof typeof manners;

interface Props {
  manner: Manner;
  onManner: (manner: Manner) => void;
  tares: ReadonlyMap<string, number>;
  chosen: string;
  onChoose: (name: string) => void;
  onTare: (name: string, grams: number, instrument: string) => void;
  /** what stands on the pad, to be kept as a tare */
  grossG: number | null;
  instrument: string;
  clear: () => void;
  /** the chosen one weighs otherwise than before */
  drift: { before: number; now: number } | null;
}

/** What is weighed along: asked once for a series; a tare is read once and kept in the log under its name. */
export function Container(props: Props) {
  const { manner, onManner, tares, chosen, onChoose, onTare, grossG, instrument, clear, drift } = props;
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
          <PickOne
            label="Weighed"
            value={manner}
            fullWidth
            options={(Object.keys(manners) as Manner[]).map((m) => [m, manners[m]] as const)}
            onPick={onManner}
          />
        </div>
        {manner === 'same' && (
          <div className="w4">
            <TextField
              select
              size="small"
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
        )}
        {manner !== 'pan' && (
          <>
            {manner === 'same' && (
              <div className="w4">
                <TextField
                  size="small"
                  label="New or re-weighed container"
                  value={name}
                  onChange={(e) => setName(e.target.value)}
                  error={message !== null}
                  helperText={message ?? 'its weight is what stands on the pad'}
                />
              </div>
            )}
            <div className="w4">
              <Button variant="outlined" color="secondary" onClick={keep}>
                Keep {grossG === null ? 'the weight' : `${formatFigure(grossG, 1)} g`} as{' '}
                {manner === 'own' ? 'this one’s' : 'its'} tare
              </Button>
              {manner === 'own' && (message || !tares.has(chosen)) && (
                <p className="small quiet">{message ?? `${chosen} wasn’t weighed empty yet.`}</p>
              )}
            </div>
          </>
        )}
      </div>
      {drift && (
        <p className="note bad" role="status">
          {chosen} weighed {formatFigure(drift.before, 1)} g before and {formatFigure(drift.now, 1)} g now:
          wet, not clean, another one, or the scale drifts? Weights kept before keep the tare they had.
        </p>
      )}
    </section>
  );
}
