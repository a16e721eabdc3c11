import { z } from 'zod';
import { fromMinor, toMinor } from '~core/cost/money';
import { type PackId, type ProductId, newId } from '~core/model/ids';
import {
  AmountUnit,
  LabelAnalysis,
  Obtained,
  Product,
  productCategories,
  productForms,
} from '~core/model/product';
import { fieldText, optionalNumber, typedNumber } from '../form/schemaFields';

const percent = () =>
  optionalNumber().pipe(z.number().min(0, 'Not below 0 %.').max(100, 'Not above 100 %.').nullable());

/** A product as the form holds it: figures as typed. */
export const ProductForm = z
  .object({
    name: Product.shape.name,
    maker: Product.shape.maker,
    category: z.enum(productCategories),
    form: z.enum(productForms),
    obtained: Obtained,
    densityKgPerL: optionalNumber().pipe(Product.shape.densityKgPerL),
    basis: LabelAnalysis.shape.basis,
    nPercent: percent(),
    p2o5Percent: percent(),
    k2oPercent: percent(),
    caPercent: percent(),
    mgPercent: percent(),
    sPercent: percent(),
    directions: Product.shape.directions,
    notes: Product.shape.notes,
    claims: z.array(
      z.object({
        id: z.string(),
        text: z.string().trim().min(1, 'Write the claim as the label has it.').max(500),
      }),
    ),
    packs: z.array(
      z.object({
        id: z.string(),
        size: typedNumber('How much is in the pack?').pipe(
          z.number().positive('A pack holds more than nothing.'),
        ),
        unit: AmountUnit,
        price: typedNumber('What did it cost?').pipe(z.number().min(0, 'A price isn’t negative.')),
        currency: z
          .string()
          .trim()
          .toUpperCase()
          .regex(/^[A-Z]{3}$/, 'Three letters, such as EUR.'),
        boughtOn: z.string(),
      }),
    ),
  })
  .superRefine((p, ctx) => {
    const main = [p.nPercent, p.p2o5Percent, p.k2oPercent];
    if (main.some((v) => v !== null) && main.some((v) => v === null)) {
      ctx.addIssue({
        code: 'custom',
        path: ['nPercent'],
        message: 'Give all three of N, P₂O₅ and K₂O; 0 where there is none.',
      });
    }
    const sum = [...main, p.caPercent, p.mgPercent, p.sPercent].reduce<number>((s, v) => s + (v ?? 0), 0);
    if (sum > 100 && p.basis === 'w/w') {
      ctx.addIssue({ code: 'custom', path: ['nPercent'], message: `The analysis adds up to ${sum} %.` });
    }
  });

export type ProductFormInput = z.input<typeof ProductForm>;

/** The product a form stands for. */
export function fromForm(id: string, f: z.output<typeof ProductForm>): Product {
  const { nPercent: n, p2o5Percent: p, k2oPercent: k } = f;
  return Product.parse({
    ...f,
    id,
    analysis:
      n === null || p === null || k === null
        ? null
        : {
            basis: f.basis,
            nPercent: n,
            p2o5Percent: p,
            k2oPercent: k,
            caPercent: f.caPercent,
            mgPercent: f.mgPercent,
            sPercent: f.sPercent,
          },
    packs: f.packs.map((k) => ({
      id: k.id,
      size: k.size,
      unit: k.unit,
      priceMinor: toMinor(k.price, k.currency),
      currency: k.currency,
      boughtOn: k.boughtOn || null,
    })),
  });
}

export const emptyPack = (currency: string) => ({
  id: newId<PackId>() as string,
  size: '',
  unit: 'g' as const,
  price: '',
  currency,
  boughtOn: '',
});

/** Form values of a product, or of a new one. */
export function toForm(p: Product | null): ProductFormInput {
  const a = p?.analysis;
  return {
    name: p?.name ?? '',
    maker: p?.maker ?? '',
    category: p?.category ?? 'fertilizer',
    form: p?.form ?? 'liquid',
    obtained: p?.obtained ?? 'bought',
    densityKgPerL: fieldText(p?.densityKgPerL),
    basis: a?.basis ?? 'w/w',
    nPercent: fieldText(a?.nPercent),
    p2o5Percent: fieldText(a?.p2o5Percent),
    k2oPercent: fieldText(a?.k2oPercent),
    caPercent: fieldText(a?.caPercent),
    mgPercent: fieldText(a?.mgPercent),
    sPercent: fieldText(a?.sPercent),
    directions: p?.directions ?? '',
    notes: p?.notes ?? '',
    claims: p?.claims.map((c) => ({ ...c })) ?? [],
    packs:
      p?.packs.map((k) => ({
        id: k.id,
        size: String(k.size),
        unit: k.unit,
        price: String(fromMinor(k.priceMinor, k.currency)),
        currency: k.currency,
        boughtOn: k.boughtOn ?? '',
      })) ?? [],
  };
}

export const newProductId = () => newId<ProductId>();
