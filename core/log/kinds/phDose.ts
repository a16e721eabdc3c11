import { z } from 'zod';
import { TreatmentId, UnitId } from '../../model/ids';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** Acid or alkali given to a solution, with the pH before and after: a titration. */
export const phDose = entryKind({
  body: z.object({
    kind: z.literal('phDose'),
    unitId: UnitId.nullable(),
    treatmentId: TreatmentId.nullable(),
    batch: z.string().max(40),
    /** what was given, as its bottle is called */
    agent: z.string().trim().min(1, 'Name what was given.').max(80),
    amountMl: z.number('How much?').positive('More than 0 mL.'),
    volumeL: z.number('Into how much?').positive('More than 0 L.'),
    phBefore: z.number('pH before?').min(0, 'pH runs from 0 to 14.').max(14, 'pH runs from 0 to 14.'),
    phAfter: z.number('pH after?').min(0, 'pH runs from 0 to 14.').max(14, 'pH runs from 0 to 14.'),
  }),
  label: 'pH corrected',
  right: 'mix',
  describe: (b) => `${b.amountMl} mL ${b.agent} in ${b.volumeL} L, pH ${b.phBefore} to ${b.phAfter}`,
  underCodes: () => 'pH corrected',
  takeBack: { allowed: true },
  table: {
    name: 'ph_corrections',
    title: 'Acid or alkali given, with the pH before and after',
    rows: ({ id, at, body }, words) => [{ id, at, body, words }],
    columns: [
      ['unit', 'string', 'code of the unit', (r) => (r.body.unitId ? r.words.unit(r.body.unitId) : null)],
      ['treatment', 'string', 'treatment', (r) => r.words.treatment(r.body.treatmentId) || null],
      ['agent', 'string', 'what was given', (r) => r.body.agent],
      ['amount_ml', 'number', 'millilitres', (r) => r.body.amountMl],
      ['volume_l', 'number', 'into so many litres', (r) => r.body.volumeL],
      ['ph_before', 'number', 'pH before', (r) => r.body.phBefore],
      ['ph_after', 'number', 'pH after', (r) => r.body.phAfter],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['treatment_id', 'string', 'treatment', (r) => r.body.treatmentId],
    ],
  },
});
