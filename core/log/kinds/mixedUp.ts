import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Labels lost: each of these is one of these. Values go on under the positions they stand at, until they are told apart. */
export const mixedUp = entryKind({
  body: z.object({
    kind: z.literal('mixedUp'),
    unitIds: z.array(UnitId).min(2, 'Two or more can be mixed up.'),
    reason: z.string().trim().max(500),
  }),
  label: 'Labels lost',
  right: 'plan',
  describe: (b, words) =>
    `each of ${b.unitIds.map(words.unit).join(', ')} is one of these${b.reason ? `: ${b.reason}` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'labels_lost',
    title: 'Units whose labels were lost',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      [
        'units',
        'string!',
        'codes of the units, each one of these',
        (r) => r.body.unitIds.map(r.words.unit).join(' '),
      ],
      ['reason', 'string', 'how it happened', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
