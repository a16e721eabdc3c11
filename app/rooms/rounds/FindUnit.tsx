import { useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { backToPad } from '../../ui/keys';
import { unitByCode } from './unitByCode';

/** Goes to a unit by the code on its label. */
export function FindUnit({ units, onFound }: { units: readonly Unit[]; onFound: (id: UnitId) => void }) {
  const [typed, setTyped] = useState('');
  const [missed, setMissed] = useState('');
  const find = () => {
    const unit = unitByCode(units, typed);
    if (!unit) return setMissed(typed.trim() === '' ? '' : `No label says “${typed.trim()}”.`);
    setTyped('');
    setMissed('');
    onFound(unit.id);
    backToPad();
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
      {missed && (
        <span role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
          {missed}
        </span>
      )}
    </div>
  );
}
