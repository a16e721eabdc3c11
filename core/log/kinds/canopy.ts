import { z } from 'zod';
import { EntryId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Cover and greenness measured on a picture, with the threshold they rest on. */
export const canopy = entryKind({
  body: z.object({
    kind: z.literal('canopy'),
    photoId: EntryId,
    unitId: UnitId.nullable(),
    coverPercent: z.number().min(0).max(100),
    /** null: no length is marked in the picture */
    areaCm2: z.number().min(0).nullable(),
    darkGreenColourIndex: z.number().nullable(),
    palePercent: z.number().min(0).max(100).nullable(),
    brownPercent: z.number().min(0).max(100),
    threshold: z.number(),
    rule: z.enum(['otsu', 'mostlyGround', 'mostlyPlant', 'byHand']),
    /** the picture was balanced by its grey card first */
    balanced: z.literal(true).optional(),
  }),
  label: 'Cover',
  right: 'score',
  describe: (b, words) =>
    `${words.unit(b.unitId)}: ${b.coverPercent.toFixed(1)} %${b.rule === 'byHand' ? `, threshold set to ${b.threshold.toFixed(3)} by hand` : ''}`,
  takeBack: { allowed: true },
  table: {
    name: 'canopy',
    title: 'Canopy cover and greenness of pictures',
    rows: ({ id, at, body }, words) => [{ id, at, body, words }],
    columns: [
      ['unit', 'string', 'code of the unit', (r) => (r.body.unitId ? r.words.unit(r.body.unitId) : null)],
      ['cover', 'number!', 'canopy cover, per cent', (r) => r.body.coverPercent],
      ['area', 'number', 'covered area, cm²', (r) => r.body.areaCm2],
      [
        'dark_green_colour_index',
        'number',
        'Karcher and Richardson 2003',
        (r) => r.body.darkGreenColourIndex,
      ],
      ['pale', 'number', 'pale or yellowish, per cent of the plant pixels', (r) => r.body.palePercent],
      ['brown', 'number', 'brown, per cent of all pixels', (r) => r.body.brownPercent],
      ['threshold', 'number!', 'excess green above which a pixel is plant', (r) => r.body.threshold],
      ['rule', 'string!', 'where the threshold comes from', (r) => r.body.rule],
      ['balanced', 'boolean', 'colours were balanced by a grey card first', (r) => r.body.balanced ?? false],
      ['at', 'datetime', 'when the picture was taken', (r) => utc(r.at)],
      ['photo_id', 'string!', 'log line of the picture', (r) => r.body.photoId],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
