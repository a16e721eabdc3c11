import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

const hash = z.string().regex(/^[0-9a-f]{64}$/);

/** A picture: the log keeps its hash, the picture itself lies in a table of its own. */
export const photo = entryKind({
  body: z.object({
    kind: z.literal('photo'),
    unitId: UnitId.nullable(),
    file: z.string().max(200),
    sha256: hash,
    caption: z.string().max(500),
    /** a small copy for lists */
    thumbSha256: hash.optional(),
    /** pixels, as it stands */
    width: z.number().int().min(1).optional(),
    height: z.number().int().min(1).optional(),
  }),
  label: 'Photo',
  right: 'score',
  describe: (b, words) => `${b.unitId ? `${words.unit(b.unitId)} ` : ''}${b.caption || b.file}`,
  takeBack: { allowed: true },
  table: {
    name: 'photos',
    title: 'Pictures taken',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string', 'code of the unit', (r) => (r.body.unitId ? r.words.unit(r.body.unitId) : null)],
      ['file', 'string', 'file name', (r) => r.body.file],
      ['caption', 'string', 'what it shows', (r) => r.body.caption],
      ['sha256', 'string', 'SHA-256 of the file', (r) => r.body.sha256],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
