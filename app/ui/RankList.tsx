import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  closestCenter,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { ArrowDownwardIcon, ArrowUpwardIcon, DragIndicatorIcon } from './icons';
import IconButton from '@mui/material/IconButton';
import type { ReactNode } from 'react';
import { type Ranked, movedTo, placesOf, tiedWithAbove } from './ranked';
import './RankList.css';

interface Props {
  /** what is put in order, best first */
  order: readonly Ranked[];
  onOrder: (order: Ranked[]) => void;
  /** what a thing looks like on its row */
  face: (id: string) => ReactNode;
  /** what it is called to who listens */
  nameOf: (id: string) => string;
  label: string;
}

/** Things put in order by drag, by keyboard or by buttons; ties share a place. */
export function RankList({ order, onOrder, face, nameOf, label }: Props) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: 8 } }),
    useSensor(KeyboardSensor),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const to = order.findIndex((r) => r.id === over?.id);
    if (to >= 0) onOrder(movedTo(order, String(active.id), to));
  };
  const places = placesOf(order);
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
      <ol className="rank-list" aria-label={label}>
        {order.map((r, i) => (
          <Row key={r.id} id={r.id} place={places[i]!} tied={r.tied} name={nameOf(r.id)}>
            {face(r.id)}
            <span className="rank-acts">
              {i > 0 && (
                <label className="small">
                  <input
                    type="checkbox"
                    checked={r.tied}
                    aria-label={`${nameOf(r.id)} is as good as ${nameOf(order[i - 1]!.id)}`}
                    onChange={(e) => onOrder(tiedWithAbove(order, r.id, e.target.checked))}
                  />{' '}
                  as above
                </label>
              )}
              <IconButton
                aria-label={`${nameOf(r.id)} up`}
                disabled={i === 0}
                onClick={() => onOrder(movedTo(order, r.id, i - 1))}
              >
                <ArrowUpwardIcon fontSize="small" />
              </IconButton>
              <IconButton
                aria-label={`${nameOf(r.id)} down`}
                disabled={i === order.length - 1}
                onClick={() => onOrder(movedTo(order, r.id, i + 1))}
              >
                <ArrowDownwardIcon fontSize="small" />
              </IconButton>
            </span>
          </Row>
        ))}
      </ol>
    </DndContext>
  );
}

interface RowProps {
  id: string;
  place: number;
  tied: boolean;
  name: string;
  children: ReactNode;
}

function Row({ id, place, tied, name, children }: RowProps) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id });
  const { setNodeRef: setDrop, isOver } = useDroppable({ id });
  return (
    <li
      ref={setDrop}
      className={`rank-row${tied ? ' tied' : ''}${isOver && !isDragging ? ' over' : ''}`}
      style={transform ? { transform: `translate(0, ${transform.y}px)`, zIndex: 2 } : undefined}
    >
      <button
        type="button"
        className="rank-handle"
        ref={setNodeRef}
        {...listeners}
        {...attributes}
        aria-label={`${name}, place ${place}: move`}
      >
        <DragIndicatorIcon fontSize="small" />
        <span className="num">{place}</span>
      </button>
      {children}
    </li>
  );
}
