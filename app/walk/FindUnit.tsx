import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { memo, useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { unitNamedIn } from '~core/plan/matchUnit';
import { LivePicture } from '../instruments/LivePicture';
import { useCamera } from '../instruments/useCamera';
import { useCodeReader } from '../instruments/useCodeReader';
import { backToPad } from '../ui/keys';
import { unitByCode } from './unitByCode';

/** Goes to a unit by the code on its label: typed, or its label held before the camera. */
export const FindUnit = memo(function FindUnit({
  units,
  onFound,
}: {
  units: readonly Unit[];
  onFound: (id: UnitId) => void;
}) {
  const [typed, setTyped] = useState('');
  const [missed, setMissed] = useState('');
  const [reading, setReading] = useState(false);
  const goTo = (id: UnitId) => {
    setTyped('');
    setMissed('');
    setReading(false);
    onFound(id);
    backToPad();
  };
  const find = () => {
    const unit = unitByCode(units, typed);
    if (!unit) return setMissed(typed.trim() === '' ? '' : `No label says “${typed.trim()}”.`);
    goTo(unit.id);
  };
  return (
    <div className="pad-row find-unit">
      <label>
        <span>Label</span>
        <input
          value={typed}
          placeholder={units[0]?.code}
          aria-invalid={missed !== ''}
          onChange={(e) => {
            setTyped(e.target.value);
            setMissed('');
          }}
          onKeyDown={(e) => e.key === 'Enter' && find()}
        />
      </label>
      <button type="button" className="link" onClick={find}>
        Find it
      </button>
      <button type="button" className="link" onClick={() => setReading(true)}>
        By camera …
      </button>
      {missed && (
        <span role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
          {missed}
        </span>
      )}
      {reading && <ReadLabel units={units} onFound={goTo} onClose={() => setReading(false)} />}
    </div>
  );
});

/** The camera, until it sees the label of one of these units. */
function ReadLabel({
  units,
  onFound,
  onClose,
}: {
  units: readonly Unit[];
  onFound: (id: UnitId) => void;
  onClose: () => void;
}) {
  const [other, setOther] = useState('');
  // The stand-in is shown the last label, so that something happens.
  const view = useCamera(() => ({ code: units.at(-1)?.code ?? '', cover: 0.4, seed: 3 }));
  useCodeReader(view.camera, (text) => {
    const unit = unitNamedIn(units, text);
    if (unit) onFound(unit.id);
    else setOther(text.slice(0, 60));
  });
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>Hold a label before the camera</DialogTitle>
      <DialogContent>
        <LivePicture view={view} />
        {other && (
          <p className="small" role="status">
            “{other}” is no unit of this walk.
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}
