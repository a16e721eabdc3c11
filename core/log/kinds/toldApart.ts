import { z } from 'zod';
import { EntryId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Units whose labels were lost are known again, and by what. */
export const toldApart = entryKind({
  body: z.object({
    kind: z.literal('toldApart'),
    mixedUpId: EntryId,
    /** what stood as `from` is really `to` */
    as: z.array(z.object({ from: UnitId, to: UnitId })).min(1),
    how: z.string().trim().min(1, 'Say by what sign they were told apart.').max(500),
  }),
  label: 'Told apart',
  right: 'score',
  describe: (b, words) =>
    `${b.as.map((p) => (p.from === p.to ? `${words.unit(p.from)} is itself` : `${words.unit(p.from)} is ${words.unit(p.to)}`)).join(', ')}: ${b.how}`,
  takeBack: { allowed: true },
  table: {
    name: 'labels_found',
    title: 'Units told apart again',
    rows: ({ id, at, by, body }, words) =>
      body.as.map((pair) => ({ id, at, by, pair, how: body.how, words })),
    columns: [
      ['stood_as', 'string!', 'code it stood under', (r) => r.words.unit(r.pair.from)],
      ['is', 'string!', 'code it really has', (r) => r.words.unit(r.pair.to)],
      ['how', 'string!', 'by what sign', (r) => r.how],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
