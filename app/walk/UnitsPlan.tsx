import type { ReactNode } from 'react';
import type { TrialState } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { PlanView } from '../ui/PlanView';
import { UnitFace, unitNumber, useTileInk } from '../ui/UnitTile';

interface Props {
  state: TrialState;
  current: UnitId;
  /** what a tile says of its unit; null: it isn't on the walk */
  valueOf: (unit: Unit) => string | null;
  onPick: (id: UnitId) => void;
}

/** The plan with a word or a figure on every unit; tap one to go to it. */
export function UnitsPlan({ state, current, valueOf, onPick }: Props) {
  const tileInk = useTileInk();
  const { plan } = state;
  return (
    <PlanView
      plan={plan}
      positions={state.positions}
      renderPlace={(_, unit): ReactNode => {
        if (!unit) return <span className="place" aria-hidden="true" />;
        const index = planIndex(plan).treatmentOrder(unit.treatmentId);
        const value = state.deaths.has(unit.id) ? 'died' : valueOf(unit);
        return (
          <button
            type="button"
            className={`tile${unit.id === current ? ' current' : ''}`}
            style={tileInk(index)}
            data-unit={unit.code}
            disabled={state.deaths.has(unit.id) || value === null}
            onClick={() => onPick(unit.id)}
          >
            <UnitFace
              index={index}
              number={unitNumber(unit.code)}
              value={value ?? '–'}
              words={/^[a-z]{5,}$/.test(value ?? '')}
            />
          </button>
        );
      }}
    />
  );
}
