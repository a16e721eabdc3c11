import { amountWords } from '../../quantity/format';
import { z } from 'zod';
import { PackId, ProductId } from '../../model/ids';
import { AmountUnit } from '../../model/product';
import { utc } from '../../model/column';
import { entryKind } from './kind';

/** A product dissolved ahead, to be measured out by the millilitre. */
export const stock = entryKind({
  body: z.object({
    kind: z.literal('stock'),
    productId: ProductId,
    batch: z.string().min(1).max(40),
    amount: z.number().positive(),
    unit: AmountUnit,
    volumeL: z.number().positive(),
    packId: PackId.optional(),
  }),
  label: 'Stock made',
  right: 'mix',
  describe: (b) => `${b.batch}: ${amountWords(b.amount, b.unit)} in ${b.volumeL} L`,
  underCodes: (b) => b.batch,
  takeBack: { allowed: true },
  table: {
    name: 'stock_solutions',
    title: 'Products dissolved ahead',
    rows: ({ id, at, body }, words) => [{ id, at, body, words }],
    columns: [
      ['batch', 'string!', 'name of the stock solution', (r) => r.body.batch],
      ['product', 'string', 'product', (r) => r.words.product(null, r.body.productId)],
      ['amount', 'number!', 'what was dissolved', (r) => r.body.amount],
      ['unit', 'string!', 'unit of amount', (r) => r.body.unit],
      ['volume_l', 'number!', 'litres', (r) => r.body.volumeL],
      ['at', 'datetime', 'when', (r) => utc(r.at)],
      ['entry_id', 'string!', 'log line', (r) => r.id],
      ['product_id', 'string!', 'product', (r) => r.body.productId],
    ],
  },
});
