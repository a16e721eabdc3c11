import { z } from 'zod';
import { EntryId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

const gain = z.number().positive().max(10);

/** Colour balance of a picture by a grey card in it: where it was tapped, and what each channel is multiplied by. */
export const balance = entryKind({
  body: z.object({
    kind: z.literal('balance'),
    photoId: EntryId,
    /** in shares of width and height */
    x: z.number().min(0).max(1),
    y: z.number().min(0).max(1),
    gains: z.tuple([gain, gain, gain]),
  }),
  label: 'Colour balance',
  right: 'score',
  describe: (b) =>
    `by the grey card: red × ${b.gains[0].toFixed(2)}, green × ${b.gains[1].toFixed(2)}, blue × ${b.gains[2].toFixed(2)}`,
  takeBack: { allowed: true },
  table: {
    name: 'colour_balance',
    title: 'Colour balance of pictures by a grey card',
    rows: ({ id, at, body }) => [{ id, at, body }],
    columns: [
      ['red', 'number!', 'red is multiplied by', (r) => r.body.gains[0]],
      ['green', 'number!', 'green is multiplied by', (r) => r.body.gains[1]],
      ['blue', 'number!', 'blue is multiplied by', (r) => r.body.gains[2]],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['photo_id', 'string!', 'log line of the picture', (r) => r.body.photoId],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
