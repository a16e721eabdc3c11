import { z } from 'zod';
import { TraitId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { formatFigure } from '../../quantity/format';
import { entryKind } from './kind';
import { netG } from './weighing';

/** One weighing of what is being dried: fresh as it goes in, then again and again until it stays the same. */
export const drying = entryKind({
  body: z.object({
    kind: z.literal('drying'),
    unitId: UnitId,
    traitId: TraitId,
    /** fresh: before it went in; dry: taken out to be weighed */
    stage: z.enum(['fresh', 'dry']),
    grossG: z.number().min(0, 'A weight isn’t negative.'),
    tareG: z.number().min(0, 'A tare isn’t negative.'),
    container: z.string().max(80),
    /** heads or plants dried together in one bag: one value for the unit */
    together: z.number().int().min(1).max(1000),
    instrument: z.string().max(80),
  }),
  label: 'Dried',
  right: 'score',
  describe: (b, words) =>
    `${words.unit(b.unitId)} ${formatFigure(netG(b), 1)} g net, ${b.stage === 'fresh' ? 'fresh, into the oven' : 'out of the oven'}${b.together > 1 ? `, ${b.together} together` : ''} by ${b.instrument}`,
  takeBack: { allowed: true },
  table: {
    name: 'dryings',
    title: 'Weighings on the way to constant weight',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['trait', 'string', 'dry weight', (r) => r.words.trait(r.body.traitId)?.name ?? null],
      ['stage', 'string!', 'fresh: as it went in; dry: taken out to be weighed', (r) => r.body.stage],
      ['gross_g', 'number!', 'gross weight, g', (r) => r.body.grossG],
      ['tare_g', 'number!', 'tare, g', (r) => r.body.tareG],
      ['net_g', 'number!', 'gross less tare, g', (r) => netG(r.body)],
      ['container', 'string', 'dried in', (r) => r.body.container],
      ['together', 'integer!', 'heads or plants in it', (r) => r.body.together],
      ['instrument', 'string', 'scale, or “typed”', (r) => r.body.instrument],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
      ['trait_id', 'string!', 'trait', (r) => r.body.traitId],
    ],
  },
});
