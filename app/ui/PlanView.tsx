import { type SizeUnits, sidesText, sizeUnitsOf } from '~core/quantity/sizeText';
import {
  type CSSProperties,
  type KeyboardEvent,
  memo,
  type ReactNode,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import type { Area, Plan, Position, Unit } from '~core/model/plan';
import { positionKey, reservedUse } from '~core/model/positions';
import type { UnitId } from '~core/model/ids';
import { serpentine } from '~core/design/randomise';
import './PlanView.css';

interface PlanViewProps {
  plan: Plan;
  /** where each unit stands now */
  positions: ReadonlyMap<UnitId, Position>;
  /** draws one position; `unit` is undefined where it is free */
  renderPlace: (position: Position, unit: Unit | undefined) => ReactNode;
  /** draws a blocked place or a guard, where it can be changed; without it they are drawn plainly */
  renderReserved?: (position: Position, use: 'blocked' | 'guard') => ReactNode;
  /** how light each position is, 0 … 1; undefined where it wasn't read */
  tint?: (position: Position) => number | undefined;
  /** dotted line through the units in walking order */
  walk?: boolean;
}

/**
 * The trial as the place it stands in, seen from above, to scale where the sizes are known. Arrow keys
 * move between positions.
 */
export const PlanView = memo(function PlanView(props: PlanViewProps) {
  const { plan, positions, renderPlace, renderReserved, tint, walk } = props;
  const root = useRef<HTMLDivElement>(null);
  const at = new Map<string, Unit>();
  for (const u of plan.units) at.set(positionKey(positions.get(u.id) ?? u.position), u);

  const onKeyDown = (e: KeyboardEvent) => {
    const step = arrows[e.key];
    const from = (e.target as HTMLElement).closest<HTMLElement>('[data-position]');
    if (!step || !from || e.target instanceof HTMLInputElement) return;
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
    <div className={`plan${plan.units.length > MANY ? ' many' : ''}`} ref={root} onKeyDown={onKeyDown}>
      {walk && <WalkLine walk={walkOf(plan, positions)} />}
      {plan.areas.map((area) => (
        <AreaGround
          size={areaSize(area, sizeUnitsOf(plan))}
          key={area.id}
          area={area}
          widest={Math.max(...plan.areas.map((a) => a.widthCm ?? 0))}
        >
          {Array.from({ length: area.rows * area.columns }, (_, i) => {
            const position = { areaId: area.id, row: Math.floor(i / area.columns), column: i % area.columns };
            const key = positionKey(position);
            const use = reservedUse(area, position.row, position.column);
            const light = tint?.(position);
            return (
              <div
                key={key}
                data-position={key}
                className={`cell${plan.unitShape === 'round' ? ' round' : ''}`}
                style={{
                  ...unitBox(area, plan),
                  ...(light !== undefined && ({ '--light': `${Math.round(light * 100)}%` } as CSSProperties)),
                }}
                data-lit={light !== undefined || undefined}
              >
                {use
                  ? (renderReserved?.(position, use) ?? <Reserved use={use} />)
                  : renderPlace(position, at.get(key))}
              </div>
            );
          })}
        </AreaGround>
      ))}
    </div>
  );
});

/** From so many units on, those out of sight are drawn when they come into it. */
const MANY = 60;

/** A place no unit may take: hatched where it is blocked, a leaf where a guard stands. */
export function Reserved({ use }: { use: 'blocked' | 'guard' }) {
  return (
    <span className={`reserved ${use}`}>
      <span className="small">{use}</span>
    </span>
  );
}

const arrows: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** The walk through all that stands here, area by area. */
const walkOf = (plan: Plan, positions: ReadonlyMap<UnitId, Position>): Position[] => {
  const at = (u: Unit) => positions.get(u.id) ?? u.position;
  const order = plan.areas.map((a) => a.id as string);
  const cells = plan.units
    .map((u) => ({ area: at(u).areaId as string, row: at(u).row, column: at(u).column }))
    .sort((a, b) => order.indexOf(a.area) - order.indexOf(b.area));
  return serpentine(cells).map((c) => ({ areaId: c.area as Area['id'], row: c.row, column: c.column }));
};

type Point = readonly [x: number, y: number];

/** How far from an area the walk passes it. [px] */
const BESIDE = 9;

/** From one area to the next: out below, along the gap, in from above; it never crosses what stands there. */
function between(from: Point, out: DOMRect, to: Point, into: DOMRect): Point[] {
  const below = out.bottom + BESIDE;
  if (into.top > out.bottom)
    return [
      [from[0], below],
      [to[0], below],
    ];
  const aisle = (out.right + into.left) / 2;
  const above = into.top - BESIDE;
  return [
    [from[0], below],
    [aisle, below],
    [aisle, above],
    [to[0], above],
  ];
}

/** The dotted line of the walk, from level to level, measured from what is drawn. */
function WalkLine({ walk }: { walk: readonly Position[] }) {
  const line = useRef<SVGSVGElement>(null);
  const [points, setPoints] = useState('');
  const keys = walk.map(positionKey).join(' ');
  useLayoutEffect(() => {
    const plan = line.current?.parentElement;
    if (!plan) return;
    const draw = () => {
      const home = plan.getBoundingClientRect();
      let before: { at: Point; ground: DOMRect; element: Element } | null = null;
      const path: Point[] = [];
      for (const key of keys.split(' ').filter(Boolean)) {
        const cell = plan.querySelector(`[data-position="${CSS.escape(key)}"]`);
        const element = cell?.closest('.area-ground');
        if (!cell || !element) continue;
        const box = cell.getBoundingClientRect();
        const at: Point = [box.left + box.width / 2, box.top + box.height / 2];
        const ground: DOMRect = before?.element === element ? before.ground : element.getBoundingClientRect();
        if (before && before.element !== element) path.push(...between(before.at, before.ground, at, ground));
        path.push(at);
        before = { at, ground, element };
      }
      const x = home.left + plan.clientLeft - plan.scrollLeft;
      const y = home.top + plan.clientTop - plan.scrollTop;
      setPoints(path.map(([px, py]) => `${Math.round(px - x)},${Math.round(py - y)}`).join(' '));
    };
    draw();
    const watch = new ResizeObserver(draw);
    watch.observe(plan);
    return () => watch.disconnect();
  }, [keys]);
  return (
    <svg className="walk" ref={line} aria-hidden="true">
      <polyline points={points} />
    </svg>
  );
}

const share = (part: number, whole: number) => `${Math.min(100, Math.round((1000 * part) / whole) / 10)}%`;

/** The unit's share of its place, where both sizes are known. */
function unitBox(area: Area, plan: Plan): CSSProperties {
  const { unitWidthCm: w, unitDepthCm: d } = plan;
  if (!area.widthCm || !area.depthCm || !w || !d) return {};
  return {
    '--unit-width': share(w, area.widthCm / area.columns),
    '--unit-depth': share(d, area.depthCm / area.rows),
  } as CSSProperties;
}

/** Areas in proportion to each other and to their own sides. */
function areaBox(area: Area, widest: number): CSSProperties {
  if (!area.widthCm || !area.depthCm) return {};
  const ratio = area.widthCm / area.depthCm;
  return {
    '--ratio': String(ratio),
    '--columns': String(area.columns),
    '--rows': String(area.rows),
    '--share': share(area.widthCm, widest),
  } as CSSProperties;
}

const areaSize = (a: Area, units: SizeUnits) =>
  a.widthCm && a.depthCm ? ` · ${sidesText(a.widthCm, a.depthCm, units)}` : '';

function AreaGround({
  area,
  size,
  widest,
  children,
}: {
  area: Area;
  size: string;
  widest: number;
  children: ReactNode;
}) {
  const posts = [0, 25, 50, 75, 100];
  const box = areaBox(area, widest);
  return (
    <section className={`area${'--ratio' in box ? ' scaled' : ''}`} aria-label={area.name} style={box}>
      <div className="area-name">
        {area.name}
        <span className="small quiet">{size}</span>
      </div>
      <div className={`area-ground ${area.kind}`}>
        {posts.flatMap((x) => [
          <span key={`t${x}`} className="post" style={{ left: `calc(${x}% - 4.5px)`, top: -5.5 }} />,
          <span key={`b${x}`} className="post" style={{ left: `calc(${x}% - 4.5px)`, bottom: -5.5 }} />,
        ])}
        <div className="area-inner">
          <div
            className="area-grid"
            style={{
              gridTemplateColumns: `repeat(${area.columns}, minmax(var(--least-tile), 1fr))`,
              gridTemplateRows: `repeat(${area.rows}, minmax(min-content, 1fr))`,
            }}
          >
            {children}
          </div>
        </div>
      </div>
    </section>
  );
}
