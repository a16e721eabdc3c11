import { z } from 'zod';
import { kitShares } from '~core/cost/kits';
import { toMinor } from '~core/quantity/money';
import type { PackId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { AmountUnit, Pack, type Product } from '~core/model/product';
import { typedNumber } from '../form/schemaFields';
import { priceFields } from './productForm';

/** A kit as the form holds it: one price for several bottles. */
export const KitForm = z
  .object({
    name: Pack.shape.kit.unwrap().shape.name,
    ...priceFields('What did the kit cost?'),
    bottles: z
      .array(
        z.object({
          productId: z.string().min(1, 'Which product?'),
          size: typedNumber('How much is in it?').pipe(Pack.shape.size),
          unit: AmountUnit,
        }),
      )
      .min(2, 'A kit has two bottles at least.'),
  })
  .superRefine(({ bottles }, ctx) => {
    bottles.forEach((b, i) => {
      if (bottles.findIndex((x) => x.productId === b.productId) < i)
        ctx.addIssue({
          code: 'custom',
          path: ['bottles', i, 'productId'],
          message: 'It stands above already.',
        });
    });
  });

export type KitFormInput = z.input<typeof KitForm>;

/** The products of a kit, each with its bottle as a pack in front of its others. */
export function withKit(products: readonly Product[], form: z.output<typeof KitForm>): Product[] {
  const { name, price, bottles, ...bought } = form;
  const priceMinor = toMinor(price, form.currency);
  const shares = kitShares(priceMinor, bottles);
  const kit = { id: newId<string>(), name, priceMinor };
  return bottles.flatMap(({ productId, size, unit }, i) => {
    const product = products.find((p) => p.id === productId);
    if (!product) return [];
    const pack: Pack = {
      ...bought,
      ...{ id: newId<PackId>(), size, unit, priceMinor: shares[i]!, count: 1, kit },
    };
    return [{ ...product, packs: [pack, ...product.packs] }];
  });
}
