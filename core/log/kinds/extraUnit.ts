import { z } from 'zod';
import { utc } from '../../model/column';
import { UnitId } from '../../model/ids';
import { Area, Unit } from '../../model/plan';
import { entryKind } from './kind';

/** One unit more than the sealed plan has: measured like the others, and left out of the findings unless asked for. */
export const extraUnit = entryKind({
  body: z.object({
    kind: z.literal('extraUnit'),
    unit: Unit.extend({ id: UnitId, block: z.null(), columnBlock: z.null() }),
    /** where it stands, when the plan had no position left: an area beside it */
    beside: Area.optional(),
    reason: z.string().trim().max(500),
  }),
  label: 'Extra unit',
  right: 'plan',
  describe: (b) => `${b.unit.code} added to what was planned${b.reason ? `: ${b.reason}` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'extra_units',
    title: 'Units added to what was planned; not drawn by lot, so left out of the findings',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.body.unit.code],
      ['treatment', 'string!', 'treatment', (r) => r.words.treatment(r.body.unit.treatmentId)],
      ['reason', 'string', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unit.id],
    ],
  },
});
