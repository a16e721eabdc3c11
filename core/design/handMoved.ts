import type { Plan, Unit } from '../model/plan';
import { positionKey } from '../model/positions';
import { placeTreatments } from './layOut';

/**
 * Units that don't stand where the plan's design and seed put their treatment: moved by hand before the seal. Empty
 * for a layout by hand, and where the seed no longer gives a layout (the areas have changed since).
 *
 * @example handMoved(plan).length // 2, after two units have changed places
 */
export function handMoved(plan: Plan): Unit[] {
  const { design } = plan;
  if (!design || design.kind === 'hand') return [];
  const placed = placeTreatments(plan, design);
  if (!placed.ok || placed.value.length !== plan.units.length) return [];
  const drawn = new Map(
    placed.value.map((c) => [
      positionKey({ areaId: c.area as Unit['position']['areaId'], row: c.row, column: c.column }),
      c.treatment,
    ]),
  );
  return plan.units.filter((u) => drawn.get(positionKey(u.position)) !== u.treatmentId);
}
