import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A unit that died, or one sample (plant, plug) in it. */
export const death = entryKind({
  body: z.object({
    kind: z.literal('death'),
    unitId: UnitId,
    /** null: the whole unit */
    sample: z.number().int().min(1).nullable(),
    cause: z.string().max(500),
  }),
  label: 'Died',
  right: 'score',
  describe: (b, words) =>
    `${words.unit(b.unitId)}${b.sample === null ? '' : `, sample ${b.sample}`} ${b.cause}`.trim(),
  takeBack: { allowed: true },
  table: {
    name: 'deaths',
    title: 'Units and plants that died',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['sample', 'integer', 'sample within the unit; empty: all of it', (r) => r.body.sample],
      ['cause', 'string', 'of what', (r) => r.body.cause],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
    ],
  },
});
