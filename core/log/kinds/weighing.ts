import { z } from 'zod';
import { RoundId, TraitId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { formatFigure } from '../../quantity/format';
import { entryKind } from './kind';

/** Net weight in grams, without floating-point dust. @example netG({ grossG: 171.6, tareG: 112.4 }) // 59.2 */
export const netG = (b: { grossG: number; tareG: number }): number => Number((b.grossG - b.tareG).toFixed(6));

interface Load {
  grossG: number;
  tareG: number;
  container: string;
}

/**
 * A weighing with another load of the same unit added to what stands: gross and tare are those of both.
 * @example withLoad({ grossG: 40, tareG: 12, container: 'tub' }, { grossG: 30, tareG: 12, container: 'tub' }) // { grossG: 70, tareG: 24, container: 'tub' }
 */
export const withLoad = <L extends Load>(before: Load, load: L): L => ({
  ...load,
  grossG: Number((before.grossG + load.grossG).toFixed(6)),
  tareG: Number((before.tareG + load.tareG).toFixed(6)),
  container: [...new Set([before.container, load.container])].filter(Boolean).join(' + ').slice(0, 80),
});

/** Gross and tare in grams; net is their difference and isn't stored. */
export const weighing = entryKind({
  body: z.object({
    kind: z.literal('weighing'),
    unitId: UnitId,
    traitId: TraitId,
    roundId: RoundId.nullable(),
    /** crop within the unit, from 1, where there are several; null when the unit is weighed whole */
    sample: z.number().int().min(1).nullable(),
    grossG: z.number().min(0, 'A weight isn’t negative.'),
    tareG: z.number().min(0, 'A tare isn’t negative.'),
    container: z.string().max(80),
    instrument: z.string().max(80),
    /** smallest step of the scale, g; null when typed without a scale */
    stepG: z.number().positive().nullable(),
    /** whether the scale called the reading steady; null when typed */
    steady: z.boolean().nullable(),
  }),
  label: 'Weighed',
  describe: (b, words) =>
    `${words.unit(b.unitId)} ${formatFigure(netG(b), 1)} g net (gross ${b.grossG}, tare ${b.tareG}${b.container ? `, ${b.container}` : ''}) by ${b.instrument}`,
  takeBack: { allowed: true },
  table: {
    name: 'weighings',
    title: 'Weights: gross, tare and net',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['trait', 'string', 'what was weighed', (r) => r.words.trait(r.body.traitId)?.name ?? null],
      ['round', 'string', 'round', (r) => r.words.round(r.body.roundId) || null],
      ['sample', 'integer', 'crop within the unit', (r) => r.body.sample],
      ['gross_g', 'number!', 'gross weight, g', (r) => r.body.grossG],
      ['tare_g', 'number!', 'tare, g', (r) => r.body.tareG],
      ['net_g', 'number!', 'gross less tare, g', (r) => netG(r.body)],
      ['container', 'string', 'weighed in', (r) => r.body.container],
      ['instrument', 'string', 'scale, or “typed”', (r) => r.body.instrument],
      ['step_g', 'number', 'smallest step of the scale, g', (r) => r.body.stepG],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
      ['trait_id', 'string!', 'trait', (r) => r.body.traitId],
    ],
  },
});
