import { z } from 'zod';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A task that isn't done, and why. */
export const taskSkipped = entryKind({
  body: z.object({
    kind: z.literal('taskSkipped'),
    task: z.string().min(1).max(200),
    reason: z.string().trim().min(1, 'Say why it isn’t done.').max(300),
  }),
  label: 'Not done',
  right: 'plan',
  describe: (b) => `${b.task}: ${b.reason}`,
  takeBack: { allowed: true },
  table: {
    name: 'tasks_skipped',
    title: 'Tasks that weren’t done',
    rows: ({ id, at, by, body }) => [{ id, at, by, body }],
    columns: [
      ['task', 'string!', 'what wasn’t done', (r) => r.body.task],
      ['reason', 'string!', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
