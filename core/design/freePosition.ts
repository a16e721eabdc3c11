import type { TrialState } from '../log/state';
import type { Position } from '../model/plan';
import { positionKey, reservedUse } from '../model/positions';

/** The first position nobody stands on, by area, row and column; null where all are taken. */
export function freePosition({ plan, positions }: Pick<TrialState, 'plan' | 'positions'>): Position | null {
  const usedKeys = new Set(plan.units.map((u) => positionKey(positions.get(u.id) ?? u.position)));
  for (const area of plan.areas) {
    for (let row = 0; row < area.rows; row++) {
      for (let column = 0; column < area.columns; column++) {
        const position = { areaId: area.id, row, column };
        if (reservedUse(area, row, column) === null && !usedKeys.has(positionKey(position))) return position;
      }
    }
  }
  return null;
}
