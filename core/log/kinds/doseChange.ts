import { z } from 'zod';
import { TreatmentId } from '../../model/ids';
import { utc } from '../../model/column';
import { ProductUse, doseAmount } from '../../model/treatment';
import { entryKind } from './kind';

/** A dose that is another from a day on than the sealed plan says: the plan stays as it was, Mixing and cost go on with this. */
export const doseChange = entryKind({
  body: z.object({
    kind: z.literal('doseChange'),
    treatmentId: TreatmentId,
    /** which use of the treatment, as the plan counts them from 0; null: one that wasn't planned */
    use: z.number().int().min(0).nullable(),
    /** how it is given from then on; null: not any more */
    to: ProductUse.nullable(),
    /** first day of the trial on which it holds */
    day: z.number().int().min(0).max(2000),
    /** of a use on no fixed days: how often it had been given */
    given: z.number().int().min(0).max(10_000),
    reason: z.string().trim().max(500),
  }),
  label: 'Dose changed',
  right: 'plan',
  describe: (b, words) => {
    const what =
      b.to === null
        ? 'not given any more'
        : `${words.product(b.treatmentId, b.to.productId)} ${Number(doseAmount(b.to).toPrecision(3))} ${b.to.unit}${b.to.solutionLPerUnit === null ? '' : ' per L'}`;
    return `${words.treatment(b.treatmentId)}: ${what} from day ${b.day}${b.reason ? ` (${b.reason})` : ''}`;
  },
  underCodes: (b) => `a dose, from day ${b.day}`,
  takeBack: { allowed: true },
  table: {
    name: 'dose_changes',
    title: 'Doses changed after the plan was sealed',
    rows: ({ id, at, by, body }, words) => [{ id, at, by, body, words }],
    columns: [
      ['treatment', 'string!', 'treatment', (r) => r.words.treatment(r.body.treatmentId)],
      [
        'use',
        'integer',
        'which of its doses, from 1; empty: one not planned',
        (r) => (r.body.use === null ? null : r.body.use + 1),
      ],
      [
        'product',
        'string',
        'product',
        (r) => r.body.to && r.words.product(r.body.treatmentId, r.body.to.productId),
      ],
      ['amount', 'number', 'dose from then on; empty: none', (r) => r.body.to && doseAmount(r.body.to)],
      ['unit', 'string', 'unit of amount', (r) => r.body.to?.unit ?? null],
      [
        'litres_per_unit',
        'number',
        'solution each unit gets; empty: the dose goes to the unit as it is',
        (r) => r.body.to?.solutionLPerUnit ?? null,
      ],
      ['every_days', 'integer', 'days from one time to the next', (r) => r.body.to?.everyDays ?? null],
      ['times', 'integer', 'times still to come', (r) => r.body.to?.timesPerUnit ?? null],
      ['from_day', 'integer!', 'first day of the trial on which it holds', (r) => r.body.day],
      ['reason', 'string', 'why', (r) => r.body.reason],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['by', 'string', 'who', (r) => r.by],
      ['entry_id', 'string!', 'log line', (r) => r.id],
    ],
  },
});
