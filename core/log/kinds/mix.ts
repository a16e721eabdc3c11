import { amountWords } from '../../quantity/format';
import { z } from 'zod';
import { PackId, ProductId, TreatmentId } from '../../model/ids';
import { AmountUnit } from '../../model/product';
import { ways, wayWords } from '../../model/treatment';
import { utc } from '../../model/column';
import { entryKind } from './kind';

const Body = z.object({
  kind: z.literal('mix'),
  treatmentId: TreatmentId,
  batch: z.string().max(40),
  /** 0 for doses that are given as they are, without water */
  volumeL: z.number().min(0),
  amounts: z.array(
    z.object({
      productId: ProductId,
      /** what was measured out; of a stock solution, in mL, where `fromStock` says so */
      amount: z.number().min(0),
      unit: AmountUnit,
      /** what the recipe wanted, in `unit` */
      wanted: z.number().min(0).optional(),
      /** the pack it was taken from */
      packId: PackId.optional(),
      /** batch of the stock solution it was taken from */
      fromStock: z.string().max(40).optional(),
    }),
  ),
  /** day of the trial it was mixed for */
  day: z.number().int().optional(),
  /** how it is given; null: in the day’s water or as it is; left out by lines from before this was kept */
  way: z.enum(ways).nullable().optional(),
  /** smallest step of the scale it was weighed on, g */
  stepG: z.number().positive().optional(),
});

/** A batch: what was measured out into how much water. */
export const mix = entryKind({
  body: Body,
  label: 'Mixed',
  right: 'mix',
  describe: (b, words) => {
    const amounts = b.amounts.map(
      (a) =>
        `${amountWords(a.amount, a.unit)} ${words.product(b.treatmentId, a.productId)}${a.fromStock ? ` from stock ${a.fromStock}` : ''}`,
    );
    return `batch ${b.batch}, ${b.volumeL} L${b.way ? `, ${wayWords[b.way]}` : ''}${amounts.length > 0 ? `: ${amounts.join(', ')}` : ', nothing in it'}`;
  },
  underCodes: (b) => `batch ${b.batch}`,
  // What was read off a batch and what was given of it says nothing once the batch was never mixed.
  takeBack: {
    allowed: true,
    with: (b, all) =>
      all.flatMap(({ id, body }) =>
        body.kind !== 'mix' && 'batch' in body && body.batch === b.batch && b.batch !== '' ? [id] : [],
      ),
  },
  table: {
    name: 'mixes',
    title: 'Batches as they were mixed, a row for each product; plain water has a row without one',
    rows: ({ id, at, body }, words) =>
      (body.amounts.length > 0 ? body.amounts : [null]).map((amount) => ({ id, at, body, amount, words })),
    columns: [
      ['batch', 'string', 'name of the batch', (r) => r.body.batch],
      ['treatment', 'string', 'treatment', (r) => r.words.treatment(r.body.treatmentId)],
      [
        'product',
        'string',
        'product',
        (r) => r.amount && r.words.product(r.body.treatmentId, r.amount.productId),
      ],
      ['amount', 'number', 'what was measured out', (r) => r.amount?.amount ?? null],
      ['unit', 'string', 'unit of amount', (r) => r.amount?.unit ?? null],
      ['wanted', 'number', 'what the recipe wanted, in unit', (r) => r.amount?.wanted ?? null],
      ['from_stock', 'string', 'stock solution it was taken from', (r) => r.amount?.fromStock ?? null],
      ['volume_l', 'number', 'litres; 0 for doses given without water', (r) => r.body.volumeL],
      ['day', 'integer', 'day of the programme it was for', (r) => r.body.day ?? null],
      ['way', 'string', 'how it is given, where not in the day’s water', (r) => r.body.way ?? null],
      ['scale_step_g', 'number', 'smallest step of the scale, g', (r) => r.body.stepG ?? null],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['treatment_id', 'string!', 'treatment', (r) => r.body.treatmentId],
      ['product_id', 'string', 'product', (r) => r.amount?.productId ?? null],
    ],
  },
});
