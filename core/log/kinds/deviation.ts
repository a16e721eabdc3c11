import { z } from 'zod';
import { happeningNames, happenings } from '../../model/happening';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';
import { happened } from './texts';

/** Something that wasn't in the plan. */
export const deviation = entryKind({
  body: z.object({
    kind: z.literal('deviation'),
    unitIds: z.array(UnitId),
    /** what kind of thing; left out in older lines */
    what: z.enum(happeningNames).optional(),
    text: happened,
  }),
  label: 'Deviation',
  right: 'score',
  describe: (b, words) =>
    `${b.unitIds.map(words.unit).join(', ')} ${b.what && b.what !== 'other' ? `${happenings[b.what].name.toLowerCase()}: ` : ''}${b.text}`.trim(),
  takeBack: { allowed: true },
  table: {
    name: 'deviations',
    title: 'What didn’t go to plan',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['units', 'string', 'codes of the units concerned', (r) => r.body.unitIds.map(r.words.unit).join(' ')],
      ['kind', 'string', 'what kind of thing', (r) => r.body.what ?? null],
      ['text', 'string', 'what', (r) => r.body.text],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
