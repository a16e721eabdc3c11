import { type TrialState, ofKind } from '../log/state';
import { rotationPlan } from '../design/rotation';
import {
  MINUTES_A_BOTTLE,
  MINUTES_A_MOVE,
  MINUTES_A_VALUE,
  daysOfTask,
  plannedTasks,
  taskOn,
} from './agenda';
import { turnTask } from './tasks';

/** Work of one kind that the log shows as done, in minutes over all units. */
export interface Work {
  name: string;
  minutes: number;
}

/**
 * What the log shows as done, in minutes as they are planned for each act: a value, a bottle, a turn, a task. An
 * estimate, not a clock.
 *
 * @example workDone(state) // [{ name: 'values', minutes: 12 }, { name: 'bottles', minutes: 50 }]
 */
export function workDone(state: TrialState): Work[] {
  const { plan } = state;
  const of = (kind: 'measurement' | 'weighing' | 'pick' | 'mix') => ofKind(state, kind).length;
  const turned = plan.rotation
    ? rotationPlan(plan).filter((t) => t.number > 0 && state.tasksDone.has(turnTask(t.number))).length
    : 0;
  const ticked = plannedTasks(state).reduce(
    (sum, t) =>
      sum + t.minutes * daysOfTask(state, t).filter((day) => state.tasksDone.has(taskOn(t.what, day))).length,
    0,
  );
  const all: Work[] = [
    { name: 'values', minutes: (of('measurement') + of('weighing') + of('pick')) * MINUTES_A_VALUE },
    { name: 'bottles', minutes: of('mix') * MINUTES_A_BOTTLE },
    { name: 'turns', minutes: turned * plan.units.length * MINUTES_A_MOVE },
    { name: 'tasks ticked off', minutes: ticked },
  ];
  return all.filter((w) => w.minutes > 0);
}
