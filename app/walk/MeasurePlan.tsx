import {
  memo,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from 'react';
import { type TrialState, observationsOf } from '~core/log/state';
import { isCorrected } from '~core/log/observation';
import { figureOfVisit, kOfVisit } from '~core/analysis/number';
import { responseOf } from '~core/log/response';
import type { UnitId } from '~core/model/ids';
import type { Position, Round, Trait, Unit } from '~core/model/plan';
import { formatFigure } from '~core/quantity/format';
import { onSent } from '../form/usePost';
import type { Saying } from '../store/change';
import { onCommitted } from '../store/committed';
import { PlanView } from '../ui/PlanView';
import { UnitFace, unitNumber, useTileInk } from '../ui/UnitTile';
import { firstOpenSample } from '~core/log/asked';
import { planIndex } from '~core/plan/planIndex';
import { kindOf } from '~core/model/plan';
import { LiveTiles } from './liveTiles';
import { usePending, valueOf } from './usePending';
import { remarkOf } from './stops';

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

/** Longer than the screen takes from the answer of the log to its drawing. */
const SETTLED_MS = 150;

/** The plan with the values of one trait in one round; tap a unit to measure it. */
export const MeasurePlan = memo(function MeasurePlan({ state, round, trait, current, typed, onPick }: Props) {
  const { plan } = state;
  const tileOf = useMemo(
    () => new Map(plan.units.map((u) => [u.id, shownOf(state, u, trait, round)])),
    [plan, state, trait, round],
  );
  const pending = usePending(trait, round);
  // A key changes one tile of two hundred: the plan itself isn't drawn again for it.
  const [live] = useState(() => new LiveTiles());
  useLayoutEffect(() => live.set({ current, typed, pending }), [live, current, typed, pending]);
  useEffect(() => {
    const here = (body: Saying | null | undefined) =>
      (body?.kind === 'measurement' || body?.kind === 'weighing') &&
      body.traitId === trait.id &&
      body.roundId === round.id
        ? body
        : null;
    const stopSent = onSent(({ data, done }) => {
      const body = here((data as { body?: Saying }).body);
      if (!body || (body.kind === 'measurement' && body.notYet)) return;
      const value = valueOf(body);
      live.send(body.unitId, value);
      // What the log says is on the tile by then: it isn't the old value again for a frame.
      void done.finally(() => setTimeout(() => live.settle(body.unitId, value), SETTLED_MS));
    });
    const stopCommitted = onCommitted((entries) => {
      for (const e of entries) {
        const body = here(e.kind === 'correction' ? e.replacement : e);
        if (body) live.keep(body.unitId, valueOf(body));
      }
    });
    return () => {
      stopSent();
      stopCommitted();
    };
  }, [live, trait.id, round.id]);
  const renderPlace = useCallback(
    (_: Position, unit: Unit | undefined) => {
      if (!unit) return <span className="place" aria-hidden="true" />;
      return (
        <MeasureTile
          {...tileOf.get(unit.id)!}
          id={unit.id}
          code={unit.code}
          live={live}
          decimals={trait.decimals}
          onPick={onPick}
        />
      );
    },
    [tileOf, live, onPick, trait.decimals],
  );
  return <PlanView plan={plan} positions={state.positions} walk renderPlace={renderPlace} />;
});

interface TileProps extends Shown {
  id: UnitId;
  code: string;
  live: LiveTiles;
  decimals: number;
  onPick: (id: UnitId) => void;
}

const MeasureTile = memo(function MeasureTile(p: TileProps) {
  const tileInk = useTileInk();
  const { id, code, index, dead, empty, flag, onPick, live } = p;
  const subscribe = useCallback((tell: () => void) => live.subscribe(id, tell), [live, id]);
  const { isCurrent, typed, pending } = useSyncExternalStore(subscribe, () => live.of(id));
  // A value on its way to the log, or just arrived.
  const sent = pending ? formatFigure(pending.value, p.decimals) : '';
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
          typed || !sent || pending?.kept ? (
            <span style={{ color: colour }}>{typed || sent || p.text}</span>
          ) : (
            <span className="keeping">
              <span className="sr-only">being kept: </span>
              {sent}
            </span>
          )
        }
      />
      {flag && <span className="flag">{flag}</span>}
    </button>
  );
});
