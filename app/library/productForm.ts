import { z } from 'zod';
import type { PackId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import {
  isDosed,
  type AmountUnit,
  LabelAnalysis,
  OwnMeasure,
  Pack,
  Product,
  shopKinds,
} from '~core/model/product';
import { fromMinor, toMinor } from '~core/quantity/money';
import { parseRate } from '~core/quantity/rate';
import { measureWorth } from '~core/quantity/units';
import { recordForm } from '../form/recordForm';
import { optionalNumber, orNull, orUnsaid, typedNumber } from '../form/schemaFields';
import { keptFigure, micros, printedFigure, spoonMasses } from './labelText';

/** Where a pack can be said to come from. */
export const shopOptions = [
  ['', 'not said'] as const,
  ...shopKinds.map((k) => [k, k === 'maker' ? 'the maker itself' : k] as const),
];

/** A price as it is typed, with its currency and where it was paid. @param asked said where it is empty */
export const priceFields = (asked: string) => ({
  price: typedNumber(asked).pipe(z.number().min(0, 'A price isn’t negative.')),
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z]{3}$/, 'Three letters, such as EUR.'),
  boughtOn: orNull(z.iso.date('A whole day, such as 2026-03-01.')),
  shop: orUnsaid(z.enum(shopKinds)),
  country: orUnsaid(Pack.shape.country.unwrap()),
});

/** A pack as a row of the form: its price in whole money. */
const PackForm = z.codec(
  z.object({
    ...Pack.omit({ priceMinor: true }).shape,
    ...priceFields('What did it cost?'),
    size: typedNumber('How much is in the pack?').pipe(Pack.shape.size),
    count: typedNumber('How many?').pipe(Pack.shape.count),
  }),
  Pack,
  {
    decode: ({ price, ...pack }) => ({ ...pack, priceMinor: toMinor(price, pack.currency) }),
    encode: ({ priceMinor, id, ...pack }) => ({
      ...pack,
      id: id as PackId,
      price: fromMinor(priceMinor, pack.currency),
    }),
  },
);

const percent = () => optionalNumber().pipe(LabelAnalysis.shape.ureaPercent);

/** Per cents as the label prints them. */
const Printed = z
  .object({
    ...LabelAnalysis.shape,
    ...{ nPercent: percent(), nitratePercent: percent(), ammoniumPercent: percent(), ureaPercent: percent() },
    ...{ p2o5Percent: percent(), k2oPercent: percent() },
    ...{ caPercent: percent(), mgPercent: percent(), sPercent: percent() },
    micros,
  })
  .superRefine((a, ctx) => {
    const say = (path: keyof LabelAnalysis, message: string) =>
      ctx.addIssue({ code: 'custom', path: [path], message });
    const sumOf = (list: (number | null)[]) => list.reduce<number>((s, v) => s + (v ?? 0), 0);
    const main = [a.nPercent, a.p2o5Percent, a.k2oPercent];
    const others = [a.caPercent, a.mgPercent, a.sPercent];
    const forms = [a.nitratePercent, a.ammoniumPercent, a.ureaPercent];
    const said = [...main, ...others].some((v) => v !== null) || Object.keys(a.micros).length > 0;
    // At the field that is empty: an empty one isn't 0.
    const empty = (['nPercent', 'p2o5Percent', 'k2oPercent'] as const).find((name) => a[name] === null);
    if (said && empty) say(empty, 'Give all three of N, P₂O₅ and K₂O; 0 where there is none.');
    if (forms.some((v) => v !== null) && a.nPercent === null) say('nPercent', 'Give the total nitrogen too.');
    else if (a.nPercent !== null && sumOf(forms) > a.nPercent + 0.051)
      say(
        'nitratePercent',
        `The forms add up to ${Number(sumOf(forms).toFixed(3))} %, more than the ${a.nPercent} % in all.`,
      );
    // Kept as oxides: an element typed may come to more than there can be.
    for (const [field, element] of [
      ['p2o5Percent', 'P'],
      ['k2oPercent', 'K'],
    ] as const) {
      if ((keptFigure(a[field], a.printedAs.main, element) ?? 0) > 100)
        say(field, `${a[field]} % of ${element} can’t be: its oxide alone would be more than 100 %.`);
    }
    const sum = sumOf([...main, ...others]);
    if (sum > 100 && a.basis === 'w/w') say('nPercent', `The analysis adds up to ${sum} %.`);
  });

/** Nothing printed; most labels print P₂O₅ and K₂O, Ca, Mg and S. */
const notPrinted: z.output<typeof Printed> = {
  basis: 'w/w',
  printedAs: { main: 'oxide', secondary: 'element' },
  ...{ nPercent: null, nitratePercent: null, ammoniumPercent: null, ureaPercent: null },
  ...{ p2o5Percent: null, k2oPercent: null, caPercent: null, mgPercent: null, sPercent: null },
  micros: {},
};

const analysis = z.codec(Printed, LabelAnalysis.nullable(), {
  decode: ({ nPercent, p2o5Percent, k2oPercent, ...a }) => {
    if (nPercent === null || p2o5Percent === null || k2oPercent === null) return null;
    const { main, secondary } = a.printedAs;
    return {
      ...a,
      nPercent,
      p2o5Percent: keptFigure(p2o5Percent, main, 'P'),
      k2oPercent: keptFigure(k2oPercent, main, 'K'),
      caPercent: keptFigure(a.caPercent, secondary, 'Ca'),
      mgPercent: keptFigure(a.mgPercent, secondary, 'Mg'),
      sPercent: keptFigure(a.sPercent, secondary, 'S'),
    };
  },
  encode: (a) => {
    if (a === null) return notPrinted;
    const { main, secondary } = a.printedAs;
    return {
      ...a,
      p2o5Percent: printedFigure(a.p2o5Percent, main, 'P'),
      k2oPercent: printedFigure(a.k2oPercent, main, 'K'),
      caPercent: printedFigure(a.caPercent, secondary, 'Ca'),
      mgPercent: printedFigure(a.mgPercent, secondary, 'Mg'),
      sPercent: printedFigure(a.sPercent, secondary, 'S'),
    };
  },
});

/** A product as the form holds it: figures as typed. */
const ProductForm = z
  .object({
    ...Product.omit({ id: true, tile: true }).shape,
    densityKgPerL: optionalNumber().pipe(Product.shape.densityKgPerL),
    analysis,
    spoon: z.object({
      volumeMl: optionalNumber().pipe(z.number().positive('More than 0 mL.').max(1000).nullable()),
      massesG: spoonMasses,
    }),
    ownMeasures: z
      .array(
        z.object({
          ...OwnMeasure.shape,
          amount: typedNumber('How much does it hold?').pipe(OwnMeasure.shape.amount),
        }),
      )
      .max(10),
    solubilityGPerL: optionalNumber().pipe(Product.shape.solubilityGPerL),
    packs: z.array(PackForm),
  })
  .superRefine((p, ctx) => {
    const say = (path: string, message: string) =>
      ctx.addIssue({ code: 'custom', path: ['spoon', path], message });
    const { volumeMl, massesG } = p.spoon;
    if (massesG.length > 0 && spoonMl(p) === null) say('volumeMl', 'What does the spoon hold?');
    // One weighing is too few also where the label's rate says which spoon it is.
    if (massesG.length === 1 || (volumeMl !== null && massesG.length < 2))
      say('massesG', 'Weigh five level spoons (two at least): one says nothing about the spread.');
  });
export type ProductFormInput = z.input<typeof ProductForm>;

/** What a level spoon holds, mL: as typed, else the spoon that the label's rate counts in; null for neither. */
export function spoonMl({
  spoon,
  labelRate,
  labelMeasures,
}: Pick<Product, 'labelRate' | 'labelMeasures'> & { spoon: { volumeMl: number | null } }): number | null {
  if (spoon.volumeMl !== null) return spoon.volumeMl;
  const rate = parseRate(labelRate);
  if (!rate.ok || rate.value.kind !== 'amount' || rate.value.of.kind !== 'measure') return null;
  const { measure } = rate.value.of;
  return measure.unit === 'tsp' || measure.unit === 'tbsp' ? measureWorth(measure, labelMeasures).base : null;
}

/** A product as its page shows and changes it. */
export const productRecord = recordForm({
  name: 'product',
  schema: ProductForm,
  of: (product: Product) => ({ ...product, spoon: product.spoon ?? { volumeMl: null, massesG: [] } }),
  apply: (product, f) => {
    const volumeMl = spoonMl(f);
    const spoon =
      volumeMl === null || f.spoon.massesG.length === 0 ? null : { volumeMl, massesG: f.spoon.massesG };
    return { ...product, ...f, spoon };
  },
});

/** What a pack of such a product is usually sold by. */
export function usualUnit({ category, form }: Pick<Product, 'category' | 'form'>): AmountUnit {
  if (category === 'medium') return 'L';
  if (!isDosed(category) || form === 'device') return 'piece';
  return form === 'liquid' ? 'mL' : 'g';
}

/** A pack to be filled in. @param unit what it is probably sold by */
export const emptyPack = (currency: string, unit: AmountUnit): ProductFormInput['packs'][number] => ({
  ...{ id: newId<PackId>() as string, size: '', unit, price: '', currency, count: '1' },
  ...{ boughtOn: '', shop: '', country: '' },
});
