import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

const Item = z.object({
  /** as the plan names it */
  grade: z.string().trim().min(1).max(40),
  count: z.number('Give a whole number.').int('A whole number.').min(0, 'Not below 0.').max(100_000),
  /** null: counted, not weighed */
  weightG: z.number('Give a number.').min(0, 'Not below 0 g.').max(1_000_000).nullable(),
});

/** What was picked of a unit on a day, by grade; nothing at all is an entry too. */
export const pick = entryKind({
  body: z.object({
    kind: z.literal('pick'),
    unitId: UnitId,
    /** empty: looked at, nothing was ripe */
    items: z.array(Item).max(30),
    /** by what it was lost, where something was */
    note: z.string().trim().max(300),
    instrument: z.string().max(80),
  }),
  label: 'Picked',
  right: 'score',
  describe: (b, words) =>
    `${words.unit(b.unitId)}: ${b.items.length === 0 ? 'nothing ripe' : b.items.map((i) => `${i.count} ${i.grade}${i.weightG === null ? '' : `, ${i.weightG} g`}`).join('; ')}${b.note ? ` (${b.note})` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'picks',
    title: 'Picks by grade; a day on which nothing was ripe has a row without one',
    rows: ({ id, at, offsetMin, by, body }, words) =>
      (body.items.length > 0 ? body.items : [null]).map((item) => ({
        id,
        at,
        offsetMin,
        by,
        body,
        item,
        words,
      })),
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['grade', 'string', 'grade; empty: nothing ripe', (r) => r.item?.grade ?? null],
      ['count', 'integer', 'pieces', (r) => r.item?.count ?? 0],
      ['weight_g', 'number', 'weight, g; empty: not weighed', (r) => r.item?.weightG ?? null],
      ['note', 'string', 'by what it was lost', (r) => r.body.note],
      ['instrument', 'string', 'scale, or “typed”', (r) => r.body.instrument],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
    ],
  },
});
