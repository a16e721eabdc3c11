import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A point of a picture, as shares of its width and height. */
const Point = z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) });

/** The spot pictures of a unit are taken from: its outline in them, and a length in them that is known. */
export const spot = entryKind({
  body: z.object({
    kind: z.literal('spot'),
    /** null: all units are taken from one mark */
    unitId: UnitId.nullable(),
    /** null: the whole picture */
    region: z.array(Point).min(3).max(60).nullable(),
    scale: z
      .object({ a: Point, b: Point, cm: z.number().positive('More than 0 cm.').max(10_000) })
      .nullable(),
  }),
  label: 'Spot',
  right: 'score',
  describe: (b, words) =>
    `${words.unit(b.unitId)}: ${[
      b.region ? `outline of ${b.region.length} points` : 'the whole picture',
      b.scale ? `${b.scale.cm} cm marked` : '',
    ]
      .filter(Boolean)
      .join(', ')}`,
  takeBack: { allowed: true },
  table: {
    name: 'photo_spots',
    title: 'Outlines of units in their pictures, in shares of width and height',
    rows: ({ id, at, body }, words) => [{ id, at, body, words }],
    columns: [
      ['unit', 'string', 'code of the unit', (r) => (r.body.unitId ? r.words.unit(r.body.unitId) : null)],
      [
        'outline',
        'string',
        'x,y of each corner',
        (r) => r.body.region?.map((p) => `${p.x},${p.y}`).join(' ') ?? null,
      ],
      ['scale_cm', 'number', 'length marked, cm', (r) => r.body.scale?.cm ?? null],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
