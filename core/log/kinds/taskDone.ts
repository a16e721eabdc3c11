import { z } from 'zod';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A task ticked off. */
export const taskDone = entryKind({
  body: z.object({ kind: z.literal('taskDone'), task: z.string().min(1).max(200) }),
  label: 'Done',
  right: 'score',
  describe: (b) => b.task,
  takeBack: { allowed: true },
  table: {
    name: 'tasks_done',
    title: 'Tasks ticked off',
    rows: ({ id, at, by, body }) => [{ id, at, by, body }],
    columns: [
      ['task', 'string!', 'what was done', (r) => r.body.task],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
