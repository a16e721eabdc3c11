import { z } from 'zod';
import { UnitId } from '../../model/ids';
import { Position } from '../../model/area';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Units that change position in one go; a swap moves two. */
export const move = entryKind({
  body: z.object({
    kind: z.literal('move'),
    moves: z.array(z.object({ unitId: UnitId, to: Position })).min(1),
    reason: z.string().max(500),
  }),
  label: 'Moved',
  right: 'plan',
  describe: (b, words) =>
    b.moves
      .map(
        (m) =>
          `${words.unit(m.unitId)} to row ${m.to.row + 1}, position ${m.to.column + 1} of ${words.area(m.to.areaId)}`,
      )
      .join('; '),
  takeBack: { allowed: true },
  table: {
    name: 'moves',
    title: 'Units that changed position',
    rows: ({ id, at, by, body }, words) => body.moves.map((m) => ({ id, at, by, body, m, words })),
    columns: [
      ['unit', 'string', 'code of the unit', (r) => r.words.unit(r.m.unitId)],
      ['area', 'string', 'to this area', (r) => r.words.area(r.m.to.areaId)],
      ['row', 'integer', 'row, from 1 at the back', (r) => r.m.to.row + 1],
      ['column', 'integer', 'column, from 1 at the left', (r) => r.m.to.column + 1],
      ['reason', 'string', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
