import { type KeyboardEvent, memo, type ReactNode, useRef } from 'react';
import { type Area, type Plan, type Position, type Unit, positionKey } from '~core/model/plan';
import type { UnitId } from '~core/model/ids';
import { serpentine } from '~core/design/randomise';

interface PlanViewProps {
  plan: Plan;
  /** where each unit stands now */
  positions: ReadonlyMap<UnitId, Position>;
  /** draws one position; `unit` is undefined where it is free */
  renderPlace: (position: Position, unit: Unit | undefined) => ReactNode;
  /** dotted line through the units in walking order */
  walk?: boolean;
}

/** The trial as the place it stands in, seen from above. Arrow keys move between positions. */
export const PlanView = memo(function PlanView({ plan, positions, renderPlace, walk }: PlanViewProps) {
  const root = useRef<HTMLDivElement>(null);
  const at = new Map<string, Unit>();
  for (const u of plan.units) at.set(positionKey(positions.get(u.id) ?? u.position), u);

  const onKeyDown = (e: KeyboardEvent) => {
    const step = arrows[e.key];
    const from = (e.target as HTMLElement).closest<HTMLElement>('[data-position]');
    if (!step || !from) return;
    const [area, row, column] = from.dataset.position!.split('/') as [string, string, string];
    const next = positionKey({
      areaId: area as Area['id'],
      row: Number(row) + step[0],
      column: Number(column) + step[1],
    });
    const target = root.current?.querySelector<HTMLElement>(`[data-position="${CSS.escape(next)}"] button`);
    if (target) {
      e.preventDefault();
      target.focus();
    }
  };

  return (
    <div className="plan" ref={root} onKeyDown={onKeyDown}>
      {plan.areas.map((area) => (
        <AreaGround key={area.id} area={area} walked={walk ? walkedCells(area, plan, positions) : []}>
          {Array.from({ length: area.rows * area.columns }, (_, i) => {
            const position = { areaId: area.id, row: Math.floor(i / area.columns), column: i % area.columns };
            const key = positionKey(position);
            return (
              <div key={key} data-position={key} style={{ display: 'grid' }}>
                {renderPlace(position, at.get(key))}
              </div>
            );
          })}
        </AreaGround>
      ))}
    </div>
  );
});

const arrows: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

function walkedCells(area: Area, plan: Plan, positions: ReadonlyMap<UnitId, Position>) {
  const here = plan.units
    .map((u) => positions.get(u.id) ?? u.position)
    .filter((p) => p.areaId === area.id)
    .map((p) => ({ area: p.areaId, row: p.row, column: p.column }));
  return serpentine(here);
}

const areaSize = (a: Area) => (a.widthCm && a.depthCm ? ` · ${a.widthCm} × ${a.depthCm} cm` : '');

function AreaGround({
  area,
  walked,
  children,
}: {
  area: Area;
  walked: { row: number; column: number }[];
  children: ReactNode;
}) {
  const posts = [0, 25, 50, 75, 100];
  return (
    <section className="area" aria-label={area.name}>
      <div className="area-name">
        {area.name}
        <span className="small quiet">{areaSize(area)}</span>
      </div>
      <div className="area-ground">
        {posts.flatMap((x) => [
          <span key={`t${x}`} className="post" style={{ left: `calc(${x}% - 4.5px)`, top: -5.5 }} />,
          <span key={`b${x}`} className="post" style={{ left: `calc(${x}% - 4.5px)`, bottom: -5.5 }} />,
        ])}
        <div style={{ position: 'relative' }}>
          {walked.length > 1 && (
            <svg
              className="walk"
              viewBox={`0 0 ${area.columns} ${area.rows}`}
              preserveAspectRatio="none"
              aria-hidden="true"
            >
              <polyline points={walked.map((c) => `${c.column + 0.5},${c.row + 0.5}`).join(' ')} />
            </svg>
          )}
          <div
            className="area-grid"
            style={{ gridTemplateColumns: `repeat(${area.columns}, minmax(54px, 1fr))` }}
          >
            {children}
          </div>
        </div>
      </div>
    </section>
  );
}
