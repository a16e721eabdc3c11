import { z } from 'zod';
import { RoundId, TraitId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { formatFigure } from '../../quantity/format';
import { sayValue } from '../sayValue';
import { entryKind } from './kind';

/** A value of a trait, typed or read off. */
export const measurement = entryKind({
  body: z.object({
    kind: z.literal('measurement'),
    unitId: UnitId,
    traitId: TraitId,
    roundId: RoundId.nullable(),
    /** sample within the unit, from 1; null when the unit is measured as a whole */
    sample: z.number().int().min(1).nullable(),
    value: z.number(),
    /** n of a k-of-n value where it isn't the trait's own n */
    outOf: z.number().int().min(1).optional(),
    /** of a k-of-n value: so many more are borderline, not in k; counted in on demand */
    borderline: z.number().int().min(0).max(10_000).optional(),
    /** of a k-of-n value: so many of k aren't what the packet says */
    offType: z.number().int().min(0).max(10_000).optional(),
    /** days until something happened: it hadn't when last looked at */
    notYet: z.boolean().optional(),
  }),
  label: 'Measured',
  right: 'score',
  describe: (b, words) => {
    const t = words.trait(b.traitId);
    const sample = b.sample === null ? '' : `, sample ${b.sample}`;
    const value = t ? sayValue(b, t) : formatFigure(b.value, 1);
    return `${words.unit(b.unitId)} ${t?.name.toLowerCase() ?? ''} ${value}${sample} ${words.round(b.roundId)}`;
  },
  takeBack: { allowed: true },
  table: {
    name: 'measurements',
    title: 'Values as they were typed',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['unit', 'string!', 'code of the unit', (r) => r.words.unit(r.body.unitId)],
      ['trait', 'string', 'what was measured', (r) => r.words.trait(r.body.traitId)?.name ?? null],
      ['round', 'string', 'round', (r) => r.words.round(r.body.roundId) || null],
      ['sample', 'integer', 'sample within the unit', (r) => r.body.sample],
      ['value', 'number!', 'value in the trait’s unit; k for k of n', (r) => r.body.value],
      ['out_of', 'integer', 'n, where it isn’t the trait’s own', (r) => r.body.outOf ?? null],
      ['borderline', 'integer', 'k of n: so many more are borderline', (r) => r.body.borderline ?? null],
      ['off_type', 'integer', 'k of n: so many of k aren’t true to type', (r) => r.body.offType ?? null],
      ['not_yet', 'boolean', 'days until: it had not happened by then', (r) => r.body.notYet ?? null],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['unit_id', 'string!', 'unit', (r) => r.body.unitId],
      ['trait_id', 'string!', 'trait', (r) => r.body.traitId],
    ],
  },
});
