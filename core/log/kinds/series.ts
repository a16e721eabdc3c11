import { z } from 'zod';
import { AreaId, TreatmentId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Readings of a logger: the log keeps what they are, their span and hash; the readings lie in a table of their own. */
export const series = entryKind({
  body: z.object({
    kind: z.literal('series'),
    seriesId: z.string().min(1).max(80),
    name: z.string().trim().min(1, 'Name the logger.').max(120),
    unitId: UnitId.nullable(),
    treatmentId: TreatmentId.nullable(),
    /** where it hung: an area; left out with neither unit nor treatment: the bench */
    areaId: AreaId.optional(),
    columns: z
      .array(
        z.object({
          name: z.string().max(80),
          unit: z.string().max(20),
          /** what it is, where the heading tells */
          quantity: z.string().max(20).optional(),
          min: z.number().optional(),
          mean: z.number().optional(),
          max: z.number().optional(),
        }),
      )
      .min(1),
    from: z.iso.datetime({ offset: true }),
    to: z.iso.datetime({ offset: true }),
    rows: z.number().int().min(1),
    sha256: z.string().regex(/^[0-9a-f]{64}$/),
  }),
  label: 'Logger read in',
  right: 'score',
  describe: (b) => `${b.name}: ${b.rows} readings of ${b.columns.map((c) => c.name).join(', ')}`,
  takeBack: { allowed: true },
  table: {
    name: 'logger_files',
    title: 'Loggers read in; their readings lie beside',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['name', 'string!', 'logger', (r) => r.body.name],
      ['unit', 'string', 'code of the unit', (r) => (r.body.unitId ? r.words.unit(r.body.unitId) : null)],
      ['area', 'string', 'area it hung in', (r) => (r.body.areaId ? r.words.area(r.body.areaId) : null)],
      ['from', 'datetime', 'first reading', (r) => utc(r.body.from)],
      ['to', 'datetime', 'last reading', (r) => utc(r.body.to)],
      ['rows', 'integer', 'readings', (r) => r.body.rows],
      ['sha256', 'string', 'SHA-256 of the readings', (r) => r.body.sha256],
      ['at', 'datetime', 'when it was read in', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
