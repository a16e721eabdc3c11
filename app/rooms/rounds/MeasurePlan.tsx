import { type TrialState, observationsOf } from '~core/log/state';
import { unitValue } from '~core/log/unitValues';
import type { UnitId } from '~core/model/ids';
import type { Round, Trait, Unit } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { PlanView } from '../../ui/PlanView';
import { UnitFace, tileInk, unitNumber } from '../../ui/UnitTile';
import { firstOpenSample } from './walk';

interface Props {
  state: TrialState;
  round: Round;
  trait: Trait;
  current: UnitId | null;
  /** what stands on the pad now, shown on the current unit */
  typed: string;
  onPick: (id: UnitId) => void;
}

/** The plan with the values of one trait in one round; tap a unit to measure it. */
export function MeasurePlan({ state, round, trait, current, typed, onPick }: Props) {
  const { plan } = state;
  const face = (unit: Unit) => {
    const dead = state.deaths.has(unit.id);
    const value = unitValue(state, unit.id, trait, round.id);
    const open = firstOpenSample(state, unit.id, trait, round.id) !== undefined;
    const isCurrent = unit.id === current;
    const flagged =
      state.exclusions.some((x) => x.unitId === unit.id) ||
      state.deviations.some((d) => d.unitIds.includes(unit.id));
    const corrected = observationsOf(state, unit.id, trait.id, round.id).some((o) => o.earlier.length > 0);
    const shown = dead
      ? 'died'
      : isCurrent && typed
        ? typed
        : value === null
          ? '–'
          : formatFigure(value, trait.decimals);
    const index = plan.treatments.findIndex((t) => t.id === unit.treatmentId);
    return (
      <button
        type="button"
        className={`tile${open ? ' waiting' : ''}${isCurrent ? ' current' : ''}${dead ? ' dead' : ''}`}
        style={tileInk(index)}
        disabled={dead}
        aria-current={isCurrent ? 'true' : undefined}
        data-unit={unit.code}
        onClick={() => onPick(unit.id)}
        onFocus={() => !isCurrent && onPick(unit.id)}
      >
        <span className="sr-only">{unit.code}: </span>
        <UnitFace
          index={index}
          number={unitNumber(unit.code)}
          words={dead}
          value={
            <span
              style={
                isCurrent
                  ? { color: 'var(--terracotta)' }
                  : value === null
                    ? { color: 'var(--soft)' }
                    : undefined
              }
            >
              {shown}
            </span>
          }
        />
        {(flagged || corrected) && <span className="flag">{flagged ? 'noted' : 'corrected'}</span>}
      </button>
    );
  };
  return (
    <PlanView
      plan={plan}
      positions={state.positions}
      walk
      renderPlace={(_, unit) => (unit ? face(unit) : <span className="place" aria-hidden="true" />)}
    />
  );
}
