import { memo, useCallback, useMemo } from 'react';
import { type TrialState, observationsOf } from '~core/log/state';
import { isCorrected } from '~core/log/observation';
import { figureOfVisit, kOfVisit } from '~core/analysis/number';
import { responseOf } from '~core/log/response';
import type { UnitId } from '~core/model/ids';
import type { Position, Round, Trait, Unit } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { PlanView } from '../../ui/PlanView';
import { UnitFace, tileInk, unitNumber } from '../../ui/UnitTile';
import { firstOpenSample } from '~core/schedule/rounds';
import { planIndex } from '~core/plan/planIndex';
import { kindOf } from '~core/model/plan';
import { usePending } from './usePending';
import { remarkOf } from './walk';

interface Props {
  state: TrialState;
  round: Round;
  trait: Trait;
  current: UnitId | null;
  /** what stands on the pad now, shown on the current unit */
  typed: string;
  /** must stay the same function between renders: a plan of 200 units is drawn again only where it changed */
  onPick: (id: UnitId) => void;
}

/** What a unit's tile shows, apart from what is being typed. */
interface Shown {
  index: number;
  text: string;
  empty: boolean;
  open: boolean;
  dead: boolean;
  flag: '' | 'noted' | 'corrected';
}

function shownOf(state: TrialState, unit: Unit, trait: Trait, round: Round): Shown {
  const dead = state.deaths.has(unit.id) && !trait.evenDead;
  const words = kindOf(trait).takenBy === 'words';
  const visit = words
    ? undefined
    : responseOf(state, unit.id, trait).visits.find((v) => v.roundId === round.id);
  const value = visit ? figureOfVisit(visit, trait) : null;
  const counted = visit ? kOfVisit(visit) : null;
  const remark = words ? remarkOf(state, unit.id, trait, round.id) : null;
  const noted =
    state.exclusions.some((x) => x.unitId === unit.id) ||
    state.deviations.some((d) => d.unitIds.includes(unit.id));
  const corrected = observationsOf(state, unit.id, trait.id, round.id).some(isCorrected);
  return {
    index: planIndex(state.plan).treatmentOrder(unit.treatmentId),
    text: dead
      ? 'died'
      : remark
        ? 'written'
        : value === null
          ? '–'
          : (counted ?? formatFigure(value, trait.decimals)),
    empty: value === null && remark === null,
    open: firstOpenSample(state, unit.id, trait, round.id) !== undefined,
    dead,
    flag: noted ? 'noted' : corrected ? 'corrected' : '',
  };
}

/** The plan with the values of one trait in one round; tap a unit to measure it. */
export const MeasurePlan = memo(function MeasurePlan({ state, round, trait, current, typed, onPick }: Props) {
  const { plan } = state;
  const shown = useMemo(
    () => new Map(plan.units.map((u) => [u.id, shownOf(state, u, trait, round)])),
    [plan, state, trait, round],
  );
  const pending = usePending(trait, round);
  const renderPlace = useCallback(
    (_: Position, unit: Unit | undefined) => {
      if (!unit) return <span className="place" aria-hidden="true" />;
      const isCurrent = unit.id === current;
      const sent = pending.get(unit.id);
      return (
        <MeasureTile
          {...shown.get(unit.id)!}
          id={unit.id}
          code={unit.code}
          isCurrent={isCurrent}
          typed={isCurrent ? typed : ''}
          sent={sent ? formatFigure(sent.value, trait.decimals) : ''}
          kept={sent?.kept ?? false}
          onPick={onPick}
        />
      );
    },
    [shown, current, typed, onPick, pending, trait.decimals],
  );
  return <PlanView plan={plan} positions={state.positions} walk renderPlace={renderPlace} />;
});

interface TileProps extends Shown {
  id: UnitId;
  code: string;
  isCurrent: boolean;
  typed: string;
  /** a value on its way to the log, or just arrived */
  sent: string;
  /** it has arrived */
  kept: boolean;
  onPick: (id: UnitId) => void;
}

const MeasureTile = memo(function MeasureTile(p: TileProps) {
  const { id, code, index, isCurrent, dead, empty, flag, onPick } = p;
  const colour = isCurrent ? 'var(--terracotta)' : empty && !dead ? 'var(--soft)' : undefined;
  return (
    <button
      type="button"
      className={`tile${p.open ? ' waiting' : ''}${isCurrent ? ' current' : ''}${dead ? ' dead' : ''}`}
      style={tileInk(index)}
      disabled={dead}
      aria-current={isCurrent ? 'true' : undefined}
      data-unit={code}
      onClick={() => onPick(id)}
      onFocus={() => !isCurrent && onPick(id)}
    >
      <span className="sr-only">{code}: </span>
      <UnitFace
        index={index}
        number={unitNumber(code)}
        words={dead}
        value={
          p.typed || !p.sent || p.kept ? (
            <span style={{ color: colour }}>{p.typed || p.sent || p.text}</span>
          ) : (
            <span className="keeping">
              <span className="sr-only">being kept: </span>
              {p.sent}
            </span>
          )
        }
      />
      {flag && <span className="flag">{flag}</span>}
    </button>
  );
});
