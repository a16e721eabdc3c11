import type { TreatmentId, UnitId } from '../model/ids';
import { newId } from '../model/newId';
import type { Area, Design, Plan, Position, Unit } from '../model/plan';
import { positionKey, reservedUse } from '../model/positions';
import type { Result } from '../model/result';
import { ok } from '../model/result';
import { interleaved } from './interleave';
import { latinSquares } from './latinSquare';
import { splitPlots } from './splitPlot';
import { wholeAreas } from './wholeAreas';
import {
  type Cell,
  type LayoutError,
  type PlacedCell,
  completelyRandomised,
  randomisedCompleteBlocks,
  serpentine,
} from './randomise';

/** Every position a unit may take, in order of area and row: blocked ones and guards are left out. */
export function positionsOf(areas: readonly Area[]): Cell[] {
  return areas.flatMap((a) =>
    Array.from({ length: a.rows * a.columns }, (_, i) => ({
      area: a.id,
      row: Math.floor(i / a.columns),
      column: i % a.columns,
    })).filter((c) => reservedUse(a, c.row, c.column) === null),
  );
}

const code = (plan: Pick<Plan, 'code'>, number: number, total: number) =>
  `${plan.code}-${String(number).padStart(total > 99 ? 3 : 2, '0')}`;

/**
 * Where a design puts the treatments, by their ids; where what stands in a place shares, by chance over whole places.
 * @param plan its treatments and areas, and what its units share
 * @returns one placed cell a unit, or why there is no room
 */
export function placeTreatments(
  plan: Pick<Plan, 'treatments' | 'areas' | 'unitsShare'>,
  design: Pick<Design, 'kind' | 'replicates' | 'seed' | 'settings'>,
): Result<PlacedCell<TreatmentId>[], LayoutError> {
  const input = {
    treatments: plan.treatments.map((t) => t.id),
    replicates: design.replicates,
    cells: positionsOf(plan.areas),
    seed: design.seed,
  };
  if (plan.unitsShare === 'place') return wholeAreas(input);
  switch (design.kind) {
    case 'crd':
      return completelyRandomised(input);
    case 'rcbd':
      return randomisedCompleteBlocks(input);
    case 'latin':
      return latinSquares(input);
    case 'split':
      return splitPlots({ ...input, settings: design.settings });
    case 'interleave':
      return interleaved(input);
    case 'hand': {
      const placed = completelyRandomised(input);
      return placed.ok ? ok(handPlaced(placed.value, input.treatments, design.replicates)) : placed;
    }
  }
}

/**
 * Gives every treatment its units and every unit its place and code. Units are numbered along the walk.
 *
 * @param design `hand` puts treatment by treatment along the walk, to be moved by hand
 * @returns the new units, or why there is no room
 */
export function layOut(plan: Plan, design: Design): Result<Unit[], LayoutError> {
  const placed = placeTreatments(plan, design);
  if (!placed.ok) return placed;
  const walk = serpentine(placed.value);
  return ok(
    walk.map((cell, i) => ({
      id: newId<UnitId>(),
      code: code(plan, i + 1, walk.length),
      treatmentId: cell.treatment,
      block: cell.block,
      columnBlock: cell.columnBlock ?? null,
      setting: cell.setting ?? null,
      startSize: null,
      position: toPosition(cell),
    })),
  );
}

function toPosition(cell: Cell): Position {
  return { areaId: cell.area as Position['areaId'], row: cell.row, column: cell.column };
}

function handPlaced<T>(cells: PlacedCell<T>[], treatments: T[], replicates: number): PlacedCell<T>[] {
  return cells.map((c, i) => ({ ...c, treatment: treatments[Math.floor(i / replicates)]! }));
}

export interface Move {
  unitId: UnitId;
  to: Position;
}

/**
 * What happens when a unit is put on a position: it goes there, and a unit that stood there takes its place.
 * @param positions where every unit stands now
 */
export function movesFor(positions: ReadonlyMap<UnitId, Position>, unitId: UnitId, to: Position): Move[] {
  const from = positions.get(unitId);
  if (!from || positionKey(from) === positionKey(to)) return [];
  const other = [...positions].find(([, p]) => positionKey(p) === positionKey(to));
  return other
    ? [
        { unitId, to },
        { unitId: other[0], to: from },
      ]
    : [{ unitId, to }];
}

/** Walks by where the units stand: asked for at every value, changed by a move alone. */
const walks = new WeakMap<ReadonlyMap<UnitId, Position>, { units: readonly Unit[]; walk: readonly Unit[] }>();

/**
 * Units of a plan in the order they are walked, given where they stand.
 * @param positions isn't changed afterwards: the walk is kept by it
 */
export function walkOrder(units: readonly Unit[], positions: ReadonlyMap<UnitId, Position>): readonly Unit[] {
  const known = walks.get(positions);
  if (known?.units === units) return known.walk;
  const walk = serpentine(
    units.map((unit) => {
      const p = positions.get(unit.id) ?? unit.position;
      return { unit, area: p.areaId, row: p.row, column: p.column };
    }),
  ).map((c) => c.unit);
  walks.set(positions, { units, walk });
  return walk;
}
