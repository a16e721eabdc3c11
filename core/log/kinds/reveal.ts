import { z } from 'zod';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** The key of the codes opened. Names that were seen can't be unseen. */
export const reveal = entryKind({
  body: z.object({ kind: z.literal('reveal'), reason: z.string().max(500) }),
  label: 'Codes opened',
  right: 'all',
  describe: (b, { letters }) =>
    [b.reason || 'names are shown from here on', letters].filter(Boolean).join('; '),
  takeBack: { allowed: false },
  table: {
    name: 'reveals',
    title: 'When the codes were opened',
    rows: ({ id, at, by, body }) => [{ id, at, by, body }],
    columns: [
      ['reason', 'string', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
