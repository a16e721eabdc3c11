import { z } from 'zod';
import { TraitId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A unit left out of the findings, for one trait or (null) for all. */
export const exclusion = entryKind({
  body: z.object({
    kind: z.literal('exclusion'),
    unitId: UnitId,
    traitId: TraitId.nullable(),
    reason: z.string().trim().min(1, 'Say why it is left out.').max(500),
  }),
  label: 'Left out',
  right: 'plan',
  describe: (b, words) => `${words.unit(b.unitId)}: ${b.reason}`,
  takeBack: { allowed: true },
  table: {
    name: 'exclusions',
    title: 'Units left out of the findings',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      [
        'trait',
        'string',
        'for this trait; empty: for all',
        (r) => (r.body.traitId ? (r.words.trait(r.body.traitId)?.name ?? null) : null),
      ],
      ['reason', 'string!', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
    ],
  },
});
