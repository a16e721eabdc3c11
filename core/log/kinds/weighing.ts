import { z } from 'zod';
import { RoundId, TraitId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { formatFigure } from '../../quantity/format';
import { entryKind } from './kind';

/** Net weight in grams, without floating-point dust. @example netG({ grossG: 171.6, tareG: 112.4 }) // 59.2 */
export const netG = (b: { grossG: number; tareG: number }): number => Number((b.grossG - b.tareG).toFixed(6));

/** What a weighing says of itself: on which scale, in what, in how many loads. */
interface Load {
  grossG: number;
  tareG: number;
  container: string;
  instrument: string;
  stepG: number | null;
  steady: boolean | null;
  loads?: number | undefined;
}

/** The names of both, once each. */
const both = (a: string, b: string) => [...new Set([a, b])].filter(Boolean).join(' + ').slice(0, 80);

/**
 * A weighing with another load of the same unit added to what stands: gross and tare are those of both, and it is as sure
 * as the less sure of the two.
 * @example withLoad(bowl, bowl).loads // 2
 */
export const withLoad = <L extends Load>(before: Load, load: L): L => ({
  ...load,
  grossG: Number((before.grossG + load.grossG).toFixed(6)),
  tareG: Number((before.tareG + load.tareG).toFixed(6)),
  container: both(before.container, load.container),
  instrument: both(before.instrument, load.instrument),
  stepG: before.stepG === null || load.stepG === null ? null : Math.max(before.stepG, load.stepG),
  steady: [before.steady, load.steady].includes(false) ? false : before.steady && load.steady,
  loads: (before.loads ?? 1) + 1,
});

/** Whether one state of a weighing is the one before with another load: that corrects nothing. */
export const isAdded = (before: Pick<Load, 'loads'>, after: Pick<Load, 'loads'>): boolean =>
  after.loads !== undefined && after.loads === (before.loads ?? 1) + 1;

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
    /** weighed in so many loads, gross and tare added; left out: in one */
    loads: z.number().int().min(2).max(1000).optional(),
  }),
  label: 'Weighed',
  right: 'score',
  describe: (b, words) =>
    `${words.unit(b.unitId)} ${formatFigure(netG(b), 1)} g net (gross ${b.grossG}, tare ${b.tareG}${b.container ? `, ${b.container}` : ''}${b.loads ? `, in ${b.loads} loads` : ''}) by ${b.instrument}`,
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
      ['loads', 'integer', 'loads it was weighed in, added; empty: one', (r) => r.body.loads ?? null],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
      ['trait_id', 'string!', 'trait', (r) => r.body.traitId],
    ],
  },
});
