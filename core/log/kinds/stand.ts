import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** When plants in a unit are counted. */
export const standStages = {
  sown: 'sown or planted',
  up: 'came up',
  thinned: 'left after thinning',
} as const;
export type StandStage = keyof typeof standStages;

/** How many plants a unit really has: counted, not planned. */
export const stand = entryKind({
  body: z.object({
    kind: z.literal('stand'),
    unitId: UnitId,
    stage: z.enum(['sown', 'up', 'thinned']),
    count: z.number().int().min(0).max(100_000),
    /** the rule plants were pulled by; left out where none were */
    rule: z.string().trim().max(300).optional(),
  }),
  label: 'Plants counted',
  right: 'score',
  describe: (b, words) =>
    `${words.unit(b.unitId)}: ${b.count} ${standStages[b.stage]}${b.rule ? ` (${b.rule})` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'plant_counts',
    title: 'Plants counted in each unit',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['stage', 'string!', 'sown, up (came up) or thinned (left after thinning)', (r) => r.body.stage],
      ['count', 'integer!', 'plants', (r) => r.body.count],
      ['rule', 'string', 'the rule plants were pulled by', (r) => r.body.rule ?? null],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
    ],
  },
});
