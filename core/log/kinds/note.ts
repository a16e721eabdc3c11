import { z } from 'zod';
import { RoundId, TraitId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';
import { happened } from './texts';

/** A remark, or the value of a trait that is taken in words. */
export const note = entryKind({
  body: z.object({
    kind: z.literal('note'),
    unitId: UnitId.nullable(),
    text: happened,
    /** the trait taken in words that this is the value of */
    traitId: TraitId.optional(),
    roundId: RoundId.optional(),
  }),
  label: 'Remark',
  right: 'score',
  describe: (b, words) => `${b.unitId ? `${words.unit(b.unitId)}: ` : ''}${b.text}`,
  takeBack: { allowed: true },
  table: {
    name: 'remarks',
    title: 'Remarks, and traits taken in words',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string', 'code of the unit', (r) => (r.body.unitId ? r.words.unit(r.body.unitId) : null)],
      [
        'trait',
        'string',
        'the trait it is a value of',
        (r) => (r.body.traitId ? (r.words.trait(r.body.traitId)?.name ?? null) : null),
      ],
      ['round', 'string', 'round', (r) => r.words.round(r.body.roundId ?? null) || null],
      ['text', 'string!', 'what was written', (r) => r.body.text],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
