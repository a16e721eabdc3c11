import type { TrialState } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { Tessera, tesseraLetter } from '../../../ui/Tessera';
import { unitNumber } from '../../../ui/UnitTile';

/** A unit on the plan that is chosen or not. */
export function UnitChoice({
  state,
  unit,
  on,
  onToggle,
}: {
  state: TrialState;
  unit: Unit;
  on: boolean;
  onToggle: (id: UnitId) => void;
}) {
  const index = planIndex(state.plan).treatmentOrder(unit.treatmentId);
  const died = state.deaths.has(unit.id);
  return (
    <button
      type="button"
      className={`place unit-choice${on ? ' on' : ''}`}
      aria-pressed={on}
      aria-label={`${tesseraLetter(index)} ${unitNumber(unit.code)} ${unit.code}${died ? ' died' : ''}`}
      onClick={() => onToggle(unit.id)}
    >
      <Tessera index={index} size={18} /> {tesseraLetter(index)}{' '}
      <span className="num small">{unitNumber(unit.code)}</span>
      {died && <span className="small quiet"> died</span>}
    </button>
  );
}
