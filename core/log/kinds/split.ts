import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A unit that goes on in several vessels since it was transplanted: one tray, four pots. It stays one unit. */
export const split = entryKind({
  body: z.object({
    kind: z.literal('split'),
    unitId: UnitId,
    into: z.number().int().min(2).max(100),
    reason: z.string().trim().max(500),
  }),
  label: 'Split',
  right: 'plan',
  describe: (b, words) =>
    `${words.unit(b.unitId)} goes on in ${b.into} vessels${b.reason ? `: ${b.reason}` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'splits',
    title: 'Units that go on in several vessels',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['into', 'integer!', 'vessels', (r) => r.body.into],
      ['reason', 'string', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
    ],
  },
});
