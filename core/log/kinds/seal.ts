import { z } from 'zod';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** The plan frozen: SHA-256 of its canonical JSON. A seal that was made stays. */
export const seal = entryKind({
  body: z.object({ kind: z.literal('seal'), planSha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  label: 'Sealed',
  right: 'all',
  describe: (b) => `plan ${b.planSha256.slice(0, 16)}…`,
  takeBack: { allowed: false },
  table: {
    name: 'seals',
    title: 'When the plan was sealed',
    rows: ({ id, at, by, body }) => [{ id, at, by, body }],
    columns: [
      ['plan_sha256', 'string!', 'SHA-256 of the plan’s canonical JSON (RFC 8785)', (r) => r.body.planSha256],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
