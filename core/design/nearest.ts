import type { Area, Plan, Position } from '../model/plan';
import { planIndex } from '../plan/planIndex';

/** Centre of a position, cm from the corner at the back left; null where the area's size isn't known. */
const centreOf = ({ widthCm, depthCm, rows, columns }: Area, { row, column }: Position) =>
  widthCm === null || depthCm === null
    ? null
    : { x: ((column + 0.5) * widthCm) / columns, y: ((row + 0.5) * depthCm) / rows };

/**
 * Distance from a unit's centre to that of its nearest neighbour in the same area.
 *
 * @param at where each unit stands
 * @returns cm; null for a unit alone in its area, and where nobody said how large the area is
 * @example nearestNeighbour(plan, positions, unit) // 25: four columns on a metre of shelf
 */
export function nearestNeighbour(
  plan: Plan,
  at: ReadonlyMap<string, Position>,
  unitId: string,
): number | null {
  const position = at.get(unitId);
  const area = position && planIndex(plan).area(position.areaId);
  const here = area && centreOf(area, position);
  if (!here) return null;
  let nearest = Infinity;
  for (const u of plan.units) {
    const other = at.get(u.id);
    if (u.id === unitId || !other || other.areaId !== area.id) continue;
    const there = centreOf(area, other)!;
    nearest = Math.min(nearest, Math.hypot(here.x - there.x, here.y - there.y));
  }
  return Number.isFinite(nearest) ? nearest : null;
}
