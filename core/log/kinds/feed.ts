import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

const purposes = {
  feed: '',
  topUp: ', topped up',
  change: ', solution changed',
  flush: ', plain water',
} as const;

/** What units were given: a feeding, a top-up, a change of solution, a flush. */
export const feed = entryKind({
  body: z.object({
    kind: z.literal('feed'),
    unitIds: z.array(UnitId),
    /** empty for plain water */
    batch: z.string().max(40),
    volumeLPerUnit: z.number().min(0),
    /** left out: a feeding */
    purpose: z.enum(['feed', 'topUp', 'change', 'flush']).optional(),
    day: z.number().int().optional(),
  }),
  label: 'Fed',
  right: 'mix',
  describe: (b, words) =>
    `${b.unitIds.map(words.unit).join(', ')}: ${b.volumeLPerUnit} L each${b.batch ? ` of batch ${b.batch}` : ''}${purposes[b.purpose ?? 'feed']}`,
  underCodes: (b) => `${b.unitIds.length} units${b.batch ? `, batch ${b.batch}` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'feedings',
    title: 'What units were given: feedings, top-ups, changes and flushes',
    rows: ({ id, at, body }, words) => body.unitIds.map((unitId) => ({ id, at, body, unitId, words })),
    columns: [
      ['unit', 'string', 'code of the unit', (r) => r.words.unit(r.unitId)],
      ['batch', 'string', 'batch it came from; empty for plain water', (r) => r.body.batch],
      ['volume_l', 'number', 'litres', (r) => r.body.volumeLPerUnit],
      ['purpose', 'string', 'feed, topUp, change or flush', (r) => r.body.purpose ?? 'feed'],
      ['day', 'integer', 'day of the programme it was for', (r) => r.body.day ?? null],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.unitId],
    ],
  },
});
