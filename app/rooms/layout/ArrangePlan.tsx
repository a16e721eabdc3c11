import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Plan, Position, Unit } from '~core/model/plan';
import { positionKey } from '~core/model/positions';
import { PlanView } from '../../ui/PlanView';
import { UnitFace, unitNumber, useTileInk } from '../../ui/UnitTile';

interface Props {
  plan: Plan;
  positions: ReadonlyMap<UnitId, Position>;
  /** how light each position is, where it was read */
  tint?: (position: Position) => number | undefined;
  move: (unitId: UnitId, to: Position) => void;
}

/** The plan with units that can be moved: by drag, or lifted with Space and put down with Space. */
export function ArrangePlan({ plan, positions, tint, move }: Props) {
  const tileInk = useTileInk();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 180, tolerance: 8 } }),
  );
  const [dragged, setDragged] = useState<UnitId | null>(null);
  const [lifted, setLifted] = useState<UnitId | null>(null);
  const indexOf = (u: Unit) => plan.treatments.findIndex((t) => t.id === u.treatmentId);
  const nameOf = (u: Unit) => plan.treatments[indexOf(u)]?.name ?? '';
  const codeOf = (id: unknown) => plan.units.find((u) => u.id === id)?.code ?? '';
  const whereOf = (over: { data: { current?: unknown } } | null) => {
    const to = over?.data.current as Position | undefined;
    return to ? `row ${to.row + 1}, position ${to.column + 1}` : null;
  };
  const draggedUnit = plan.units.find((u) => u.id === dragged);
  const liftedUnit = plan.units.find((u) => u.id === lifted);

  const onDragEnd = (e: DragEndEvent) => {
    setDragged(null);
    const to = e.over?.data.current as Position | undefined;
    if (to) move(e.active.id as UnitId, to);
  };
  const press = (position: Position, unit: Unit | undefined) => {
    if (lifted === null) {
      if (unit) setLifted(unit.id);
      return;
    }
    setLifted(null);
    move(lifted, position);
  };
  const face = (u: Unit) => (
    <UnitFace index={indexOf(u)} number={unitNumber(u.code)} block={u.block} value={nameOf(u)} words />
  );

  return (
    <DndContext
      sensors={sensors}
      onDragStart={(e) => {
        setLifted(null);
        setDragged(e.active.id as UnitId);
      }}
      onDragEnd={onDragEnd}
      onDragCancel={() => setDragged(null)}
      accessibility={{
        screenReaderInstructions: {
          draggable: 'Space lifts a unit, arrows walk the plan, Space puts it down, Escape puts it back.',
        },
        announcements: {
          onDragStart: ({ active }) => `${codeOf(active.id)} is lifted.`,
          onDragOver: ({ active, over }) => {
            const where = whereOf(over);
            return where ? `${codeOf(active.id)} over ${where}.` : undefined;
          },
          onDragEnd: ({ active, over }) => {
            const where = whereOf(over);
            return where
              ? `${codeOf(active.id)} goes to ${where}.`
              : `${codeOf(active.id)} stays where it was.`;
          },
          onDragCancel: ({ active }) => `${codeOf(active.id)} stays where it was.`,
        },
      }}
    >
      <div onKeyDown={(e) => e.key === 'Escape' && setLifted(null)}>
        <PlanView
          plan={plan}
          positions={positions}
          tint={tint}
          renderPlace={(position, unit) => (
            <Place position={position} filled={Boolean(unit)}>
              {unit ? (
                <DraggableTile
                  unit={unit}
                  ink={indexOf(unit)}
                  state={lifted === unit.id ? 'current' : dragged === unit.id ? 'carried' : ''}
                  where={`row ${position.row + 1}, position ${position.column + 1}${lifted === unit.id ? ', lifted' : ''}`}
                  press={() => press(position, unit)}
                >
                  {face(unit)}
                </DraggableTile>
              ) : (
                <button
                  type="button"
                  className="place"
                  style={{ width: '100%' }}
                  aria-label={`Free: row ${position.row + 1}, position ${position.column + 1}`}
                  onClick={() => press(position, undefined)}
                >
                  <span className="small">free</span>
                </button>
              )}
            </Place>
          )}
        />
      </div>
      <p aria-live="polite" className="small" style={{ minHeight: '1.4rem', marginTop: '0.4rem' }}>
        {liftedUnit && `${liftedUnit.code} is lifted: choose where it goes, Esc puts it back.`}
      </p>
      <DragOverlay>
        {draggedUnit && (
          <div className="tile current" style={tileInk(indexOf(draggedUnit))}>
            {face(draggedUnit)}
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}

function Place({
  position,
  filled,
  children,
}: {
  position: Position;
  filled: boolean;
  children: React.ReactNode;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: positionKey(position), data: position });
  return (
    <div
      ref={setNodeRef}
      className={`place${filled ? ' filled' : ''}${isOver ? ' over' : ''}`}
      style={filled ? undefined : { border: 0 }}
    >
      {children}
    </div>
  );
}

interface TileProps {
  unit: Unit;
  ink: number;
  state: string;
  where: string;
  press: () => void;
  children: React.ReactNode;
}

function DraggableTile({ unit, ink, state, where, press, children }: TileProps) {
  const tileInk = useTileInk();
  const { setNodeRef, listeners } = useDraggable({ id: unit.id });
  return (
    <button
      ref={setNodeRef}
      {...listeners}
      type="button"
      className={`tile ${state}`}
      style={{ ...tileInk(ink), touchAction: 'manipulation' }}
      data-unit={unit.code}
      aria-pressed={state === 'current'}
      onClick={press}
    >
      <span className="sr-only">{unit.code}</span>
      {children}
      <span className="sr-only">{where}</span>
    </button>
  );
}
