import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A new plant from the spares in an old one's place: the same unit, from that day on. */
export const replacement = entryKind({
  body: z.object({
    kind: z.literal('replacement'),
    unitId: UnitId,
    /** null: the whole unit */
    sample: z.number().int().min(1).nullable(),
    reason: z.string().trim().max(500),
  }),
  label: 'Replaced',
  right: 'plan',
  describe: (b, words) =>
    `${words.unit(b.unitId)}${b.sample === null ? '' : `, sample ${b.sample}`} from the spares${b.reason ? `: ${b.reason}` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'replacements',
    title: 'Units and plants replaced from the spares',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['sample', 'integer', 'sample within the unit; empty: all of it', (r) => r.body.sample],
      ['reason', 'string', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
