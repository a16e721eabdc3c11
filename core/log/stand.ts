import type { UnitId } from '../model/ids';
import type { StandStage } from './kinds/stand';
import { type TrialState, ofKind } from './state';

type Logged = Pick<TrialState, 'byKind'>;

/** The newest count of each unit at a stage. */
export function standsAt(state: Logged, stage: StandStage): Map<UnitId, number> {
  const counts = new Map<UnitId, number>();
  for (const { body } of ofKind(state, 'stand'))
    if (body.stage === stage) counts.set(body.unitId, body.count);
  return counts;
}

/**
 * Plants that stand in a unit by the log: after thinning, else as they came up, else as they were planted.
 *
 * @returns null where nobody counted
 */
export function plantsIn(state: Logged, unitId: UnitId): number | null {
  for (const stage of ['thinned', 'up', 'sown'] as const) {
    const counted = ofKind(state, 'stand').findLast(
      (e) => e.body.stage === stage && e.body.unitId === unitId,
    );
    if (counted) return counted.body.count;
  }
  return null;
}

/** What thinning all to the same number asks of a unit. */
export interface Thinning {
  unitId: UnitId;
  up: number;
  /** to be pulled */
  pull: number;
  /** missing: to be filled from the spares, or told */
  short: number;
}

/**
 * Thins every unit to the same number.
 * @param up plants that came up in each
 * @param to the number wanted in all
 * @example thinTo(new Map([['a', 11], ['b', 8]]), 9) // a: pull 2; b: short by 1
 */
export const thinTo = (up: ReadonlyMap<UnitId, number>, to: number): Thinning[] =>
  [...up].map(([unitId, n]) => ({ unitId, up: n, pull: Math.max(0, n - to), short: Math.max(0, to - n) }));
