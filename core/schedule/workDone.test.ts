// Plain arithmetic with the minutes an act is planned with.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entry, harvest, height, plan, unitId } from '../testing/trial';
import { plannedTask } from './protocols/tasks';
import { taskOn } from './agenda';
import { workDone } from './workDone';

const base = plan();

describe('work by the log', () => {
  it('is nothing where nothing was done', () => {
    expect(workDone(deriveState(base, []))).toEqual([]);
  });
  it('counts values, bottles and ticked tasks, each as it is planned', () => {
    const p = { ...base, tasks: [{ ...plannedTask('sow', 0, 'Sow', ''), minutes: 40 }] };
    const log = [
      ...harvest({ Water: [50, 52], A: [60, 61] }),
      entry(height(unitId('A', 0), 4)),
      entry({ kind: 'mix', treatmentId: 'A', batch: 'A1', volumeL: 4, amounts: [] } as never),
      entry({ kind: 'taskDone', task: taskOn('Sow', 0) }),
      entry({ kind: 'taskDone', task: 'something nobody planned' }),
    ];
    expect(workDone(deriveState(p, log))).toEqual([
      { name: 'values', minutes: 1.5 },
      { name: 'bottles', minutes: 5 },
      { name: 'tasks ticked off', minutes: 40 },
    ]);
  });
});
