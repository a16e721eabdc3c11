import { type TrialState, ofKind } from '../log/state';
import type { UnitId } from '../model/ids';
import { planIndex } from '../plan/planIndex';

/** A task with all the minutes the log has for it. */
interface LoggedTask {
  task: string;
  minutes: number;
}

/**
 * Minutes the log has, task by task, the longest first.
 * @example tasksLogged(state) // [{ task: 'Watering', minutes: 75 }, { task: 'Measuring', minutes: 40 }]
 */
export function tasksLogged(state: Pick<TrialState, 'byKind'>): LoggedTask[] {
  const minutes = new Map<string, number>();
  for (const { body } of ofKind(state, 'work'))
    minutes.set(body.task, (minutes.get(body.task) ?? 0) + body.minutes);
  return [...minutes].map(([task, m]) => ({ task, minutes: m })).sort((a, b) => b.minutes - a.minutes);
}

/**
 * Minutes of work on each unit: what was logged for it, shared alike among the units it was logged for; all units of
 * the plan where none is named.
 *
 * @returns null where no work is in the log
 * @example minutesByUnit(state)?.get(unitId) // 12.5
 */
export function minutesByUnit(state: Pick<TrialState, 'plan' | 'byKind'>): Map<UnitId, number> | null {
  const logged = ofKind(state, 'work');
  if (logged.length === 0) return null;
  const all = state.plan.units.map((u) => u.id);
  const minutes = new Map<UnitId, number>(all.map((id) => [id, 0]));
  for (const { body } of logged) {
    const of = body.unitIds.filter((id) => planIndex(state.plan).unit(id) !== undefined);
    const shared = body.unitIds.length === 0 ? all : of;
    for (const id of shared) minutes.set(id, (minutes.get(id) ?? 0) + body.minutes / shared.length);
  }
  return minutes;
}
