import { z } from 'zod';
import { sayRehearsed } from '../../plan/rehearsed';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** The trial was run on paper, and what was found was kept. */
export const rehearsal = entryKind({
  body: z.object({
    kind: z.literal('rehearsal'),
    /** of what was rehearsed, so that a changed layout or prediction is seen: `rehearsedOf` */
    of: z.string().regex(/^[0-9a-f]{64}$/),
    runs: z.number().int().min(1).max(500_000),
    seed: z.number().int().min(0),
    /** spread from unit to unit that was reckoned with */
    cvPercent: z.number().positive().max(200),
    /** somebody had said what each contender would do */
    hasPrediction: z.boolean(),
    /** whether being as good was the question */
    asksAsGood: z.boolean(),
    /** share of runs in which what is true was found, 0 to 1 */
    right: z.number().min(0).max(1),
    /** share of runs in which something was told apart though nothing differed, 0 to 1 */
    falseWinner: z.number().min(0).max(1),
    /** what the findings’ own test can tell, where what decides isn't a figure; null where it is one */
    sees: z.string().max(300).nullable(),
  }),
  label: 'Rehearsed',
  right: 'plan',
  describe: (b) => sayRehearsed(b),
  takeBack: { allowed: true },
  table: {
    name: 'rehearsals',
    title: 'The trial run on paper before it began',
    rows: ({ id, at, by, body }) => [{ id, at, by, ...body }],
    columns: [
      ['runs', 'integer!', 'made-up runs', (r) => r.runs],
      ['seed', 'integer!', 'seed of the runs', (r) => r.seed],
      ['spread_percent', 'number!', 'spread from unit to unit reckoned with', (r) => r.cvPercent],
      ['right', 'number!', 'share of runs in which what is true was found', (r) => r.right],
      ['false_winner', 'number!', 'share told apart though nothing differed', (r) => r.falseWinner],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
