import { z } from 'zod';
import { TraitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Pictures a scorer scored twice on a trait's written scale, before the trial's own were scored. */
export const warmUp = entryKind({
  body: z.object({
    kind: z.literal('warmUp'),
    traitId: TraitId,
    /** the steps of the scale, in order */
    steps: z.array(z.number()).min(2).max(20),
    /** both scores of each picture that came twice */
    pairs: z
      .array(z.tuple([z.number(), z.number()]))
      .min(1)
      .max(50),
  }),
  label: 'Warm-up',
  right: 'score',
  describe: (b, words) =>
    `${words.trait(b.traitId)?.name ?? 'a score'}: ${b.pairs.filter(([first, second]) => first === second).length} of ${b.pairs.length} pictures scored the same twice`,
  takeBack: { allowed: true },
  table: {
    name: 'warm_ups',
    title: 'Pictures scored twice before scoring, to see how steady the scorer was',
    rows: ({ id, at, by, body }, words) =>
      body.pairs.map(([first, second]) => ({
        id,
        at,
        by,
        first,
        second,
        trait: words.trait(body.traitId)?.name,
      })),
    columns: [
      ['trait', 'string', 'what was scored', (r) => r.trait ?? null],
      ['first', 'number!', 'step given the first time', (r) => r.first],
      ['second', 'number!', 'step given the second time', (r) => r.second],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
