import type { Position } from '~core/model/plan';
import { positionKey } from '~core/model/positions';

/** How light a position is between the darkest (0) and the brightest (1) that was read. */
export function tintOf(readings: ReadonlyMap<string, number>): (p: Position) => number | undefined {
  const values = [...readings.values()];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return (p) => {
    const value = readings.get(positionKey(p));
    return value === undefined ? undefined : high > low ? (value - low) / (high - low) : 0.5;
  };
}
