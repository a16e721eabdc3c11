import { z } from 'zod';
import { utc } from '../../model/column';
import { PlannedTask } from '../../model/task';
import { entryKind } from './kind';

/** A task of the reviewer's own, beside those of the plan. */
export const taskPlanned = entryKind({
  body: z.object({ kind: z.literal('taskPlanned'), task: PlannedTask }),
  label: 'Planned',
  right: 'plan',
  describe: ({ task }) =>
    `${task.what}, ${task.after === null ? `day ${task.day}` : `${task.day} d after ${task.after}`}${
      task.everyDays === null ? '' : `, every ${task.everyDays} d`
    }`,
  takeBack: { allowed: true },
  table: {
    name: 'tasks_planned',
    title: 'Tasks planned beside those of the plan',
    rows: ({ id, at, by, body }) => [{ id, at, by, body }],
    columns: [
      ['task', 'string!', 'what', (r) => r.body.task.what],
      ['after', 'string', 'what it follows; empty: the start', (r) => r.body.task.after],
      ['day', 'integer!', 'days after that', (r) => r.body.task.day],
      ['every', 'integer', 'again every so many days', (r) => r.body.task.everyDays],
      ['at', 'datetime', 'when it was written', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
