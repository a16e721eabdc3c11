import { z } from 'zod';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Something that happened in the growing, on which tasks wait: seedlings up, first fruit coloured. */
export const milestone = entryKind({
  body: z.object({
    kind: z.literal('milestone'),
    event: z.string().trim().min(1, 'Say what happened.').max(60),
  }),
  label: 'Reached',
  right: 'score',
  describe: (b) => b.event,
  takeBack: { allowed: true },
  table: {
    name: 'milestones',
    title: 'What was reached, and when',
    rows: ({ id, at, by, body }) => [{ id, at, by, body }],
    columns: [
      ['event', 'string!', 'what was reached', (r) => r.body.event],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
