import { recordForm } from '../form/recordForm';
import { z } from 'zod';
import { fromMinor, toMinor } from '~core/quantity/money';
import type { PackId, ProductId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import {
  AmountUnit,
  Character,
  LabelAnalysis,
  Obtained,
  OwnMeasure,
  Pack,
  Product,
  isDosed,
  printedForms,
  productCategories,
  productForms,
  shopKinds,
} from '~core/model/product';
import { MeasureSystem, measureWorth, usMeasures } from '~core/quantity/units';
import { parseRate } from '~core/quantity/rate';
import { unlessSame, micros, figureOf, spoonMasses } from './labelText';
import { fieldText, optionalNumber, typedNumber } from '../form/schemaFields';

const percent = () =>
  optionalNumber().pipe(z.number().min(0, 'Not below 0 %.').max(100, 'Not above 100 %.').nullable());

/** A price as it is typed, with its currency. @param asked said where it is empty */
export const priceFields = (asked: string) => ({
  price: typedNumber(asked).pipe(z.number().min(0, 'A price isn’t negative.')),
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z]{3}$/, 'Three letters, such as EUR.'),
  boughtOn: z.literal('').or(Pack.shape.boughtOn.unwrap()),
  shop: z.literal('').or(Pack.shape.shop.unwrap()),
  country: Pack.shape.country.unwrap(),
});

/** What a form says of where a pack was bought, as the pack keeps it. */
export const boughtAt = (f: {
  boughtOn: string;
  shop: (typeof shopKinds)[number] | '';
  country: string;
}): Pick<Pack, 'boughtOn' | 'shop' | 'country'> => ({
  boughtOn: f.boughtOn || null,
  ...(f.shop !== '' && { shop: f.shop }),
  ...(f.country !== '' && { country: f.country }),
});

/** Nothing said of where a pack was bought. */
export const boughtNowhere = { boughtOn: '', shop: '' as const, country: '' };

/** Where a pack can be said to come from. */
export const shopOptions = [
  ['', 'not said'] as const,
  ...shopKinds.map((k) => [k, k === 'maker' ? 'the maker itself' : k] as const),
];

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
    mainAs: z.enum(printedForms),
    secondaryAs: z.enum(printedForms),
    nPercent: percent(),
    nitratePercent: percent(),
    ammoniumPercent: percent(),
    ureaPercent: percent(),
    p2o5Percent: percent(),
    k2oPercent: percent(),
    caPercent: percent(),
    mgPercent: percent(),
    sPercent: percent(),
    micros,
    labelRate: Product.shape.labelRate,
    spoonSystem: MeasureSystem.shape.spoon,
    gallonSystem: MeasureSystem.shape.gallon,
    spoonVolumeMl: optionalNumber().pipe(z.number().positive('More than 0 mL.').max(1000).nullable()),
    spoonMassesG: spoonMasses,
    ownMeasures: z
      .array(
        z.object({
          name: OwnMeasure.shape.name,
          amount: typedNumber('How much does it hold?').pipe(OwnMeasure.shape.amount),
          unit: OwnMeasure.shape.unit,
        }),
      )
      .max(10),
    solubilityGPerL: optionalNumber().pipe(Product.shape.solubilityGPerL),
    character: z.array(Character),
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
        ...priceFields('What did it cost?'),
        count: typedNumber('How many?').pipe(Pack.shape.count),
        kit: Pack.shape.kit,
      }),
    ),
  })
  .superRefine((p, ctx) => {
    const main = [p.nPercent, p.p2o5Percent, p.k2oPercent];
    const others =
      [p.caPercent, p.mgPercent, p.sPercent].some((v) => v !== null) || Object.keys(p.micros).length > 0;
    if ((others || main.some((v) => v !== null)) && main.some((v) => v === null)) {
      // At the field that is empty: an empty one isn't 0.
      const empty = (['nPercent', 'p2o5Percent', 'k2oPercent'] as const).find((name) => p[name] === null)!;
      ctx.addIssue({
        code: 'custom',
        path: [empty],
        message: 'Give all three of N, P₂O₅ and K₂O; 0 where there is none.',
      });
    }
    const sum = [...main, p.caPercent, p.mgPercent, p.sPercent].reduce<number>((s, v) => s + (v ?? 0), 0);
    const forms = [p.nitratePercent, p.ammoniumPercent, p.ureaPercent];
    const split = forms.reduce<number>((s, v) => s + (v ?? 0), 0);
    if (forms.some((v) => v !== null) && p.nPercent === null) {
      ctx.addIssue({ code: 'custom', path: ['nPercent'], message: 'Give the total nitrogen too.' });
    } else if (p.nPercent !== null && split > p.nPercent + 0.051) {
      ctx.addIssue({
        code: 'custom',
        path: ['nitratePercent'],
        message: `The forms add up to ${Number(split.toFixed(3))} %, more than the ${p.nPercent} % in all.`,
      });
    }
    if (p.spoonMassesG.length > 0 && spoonMl(p) === null) {
      ctx.addIssue({ code: 'custom', path: ['spoonVolumeMl'], message: 'What does the spoon hold?' });
    }
    // One weighing is too few also where the label's rate says which spoon it is.
    if (p.spoonMassesG.length === 1 || (p.spoonVolumeMl !== null && p.spoonMassesG.length < 2)) {
      ctx.addIssue({
        code: 'custom',
        path: ['spoonMassesG'],
        message: 'Weigh five level spoons (two at least): one says nothing about the spread.',
      });
    }
    // Kept as oxides: an element typed may come to more than there can be.
    for (const [field, element] of [
      ['p2o5Percent', 'P'],
      ['k2oPercent', 'K'],
    ] as const) {
      if ((unlessSame(p[field], p.mainAs, element) ?? 0) > 100)
        ctx.addIssue({
          code: 'custom',
          path: [field],
          message: `${p[field]} % of ${element} can’t be: its oxide alone would be more than 100 %.`,
        });
    }
    if (sum > 100 && p.basis === 'w/w') {
      ctx.addIssue({ code: 'custom', path: ['nPercent'], message: `The analysis adds up to ${sum} %.` });
    }
  });

/** What a level spoon holds, mL: as typed, else the spoon that the label's rate counts in; null for neither. */
export function spoonMl({
  spoonVolumeMl,
  labelRate,
  spoonSystem,
}: Pick<z.output<typeof ProductForm>, 'spoonVolumeMl' | 'labelRate' | 'spoonSystem'>): number | null {
  if (spoonVolumeMl !== null) return spoonVolumeMl;
  const rate = parseRate(labelRate);
  if (!rate.ok || rate.value.kind !== 'amount' || rate.value.of.kind !== 'measure') return null;
  const { measure } = rate.value.of;
  return measure.unit === 'tsp' || measure.unit === 'tbsp'
    ? measureWorth(measure, { spoon: spoonSystem, gallon: 'us' }).base
    : null;
}

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
            nitratePercent: f.nitratePercent,
            ammoniumPercent: f.ammoniumPercent,
            ureaPercent: f.ureaPercent,
            p2o5Percent: unlessSame(p, f.mainAs, 'P'),
            k2oPercent: unlessSame(k, f.mainAs, 'K'),
            caPercent: unlessSame(f.caPercent, f.secondaryAs, 'Ca'),
            mgPercent: unlessSame(f.mgPercent, f.secondaryAs, 'Mg'),
            sPercent: unlessSame(f.sPercent, f.secondaryAs, 'S'),
            micros: f.micros,
            printedAs: { main: f.mainAs, secondary: f.secondaryAs },
          },
    labelMeasures: { spoon: f.spoonSystem, gallon: f.gallonSystem },
    spoon:
      spoonMl(f) === null || f.spoonMassesG.length === 0
        ? null
        : { volumeMl: spoonMl(f)!, massesG: f.spoonMassesG },
    packs: f.packs.map((k) => ({
      id: k.id,
      size: k.size,
      unit: k.unit,
      priceMinor: toMinor(k.price, k.currency),
      currency: k.currency,
      ...boughtAt(k),
      count: k.count,
      ...(k.kit ? { kit: k.kit } : {}),
    })),
  });
}

/** What a pack of such a product is usually sold by. */
export function usualUnit({ category, form }: Pick<Product, 'category' | 'form'>): AmountUnit {
  if (category === 'medium') return 'L';
  if (!isDosed(category) || form === 'device') return 'piece';
  return form === 'liquid' ? 'mL' : 'g';
}

/** A pack to be filled in. @param unit what it is probably sold by */
export const emptyPack = (currency: string, unit: AmountUnit) => ({
  id: newId<PackId>() as string,
  size: '',
  unit,
  price: '',
  currency,
  ...boughtNowhere,
  count: '1',
});

/** Form values of a product, or of a new one. */
export function toForm(p: Product | null, measures = usMeasures): ProductFormInput {
  const a = p?.analysis;
  const { main, secondary } = a?.printedAs ?? { main: 'oxide' as const, secondary: 'element' as const };
  return {
    name: p?.name ?? '',
    maker: p?.maker ?? '',
    category: p?.category ?? 'fertilizer',
    form: p?.form ?? 'liquid',
    obtained: p?.obtained ?? 'bought',
    densityKgPerL: fieldText(p?.densityKgPerL),
    basis: a?.basis ?? 'w/w',
    mainAs: main,
    secondaryAs: secondary,
    nPercent: fieldText(a?.nPercent),
    nitratePercent: fieldText(a?.nitratePercent),
    ammoniumPercent: fieldText(a?.ammoniumPercent),
    ureaPercent: fieldText(a?.ureaPercent),
    p2o5Percent: figureOf(a?.p2o5Percent, main, 'P'),
    k2oPercent: figureOf(a?.k2oPercent, main, 'K'),
    caPercent: figureOf(a?.caPercent, secondary, 'Ca'),
    mgPercent: figureOf(a?.mgPercent, secondary, 'Mg'),
    sPercent: figureOf(a?.sPercent, secondary, 'S'),
    micros: Object.entries(a?.micros ?? {})
      .map(([e, v]) => `${e} ${v}`)
      .join(', '),
    labelRate: p?.labelRate ?? '',
    spoonSystem: p?.labelMeasures.spoon ?? measures.spoon,
    gallonSystem: p?.labelMeasures.gallon ?? measures.gallon,
    spoonVolumeMl: fieldText(p?.spoon?.volumeMl),
    spoonMassesG: p?.spoon?.massesG.join(' ') ?? '',
    ownMeasures: p?.ownMeasures.map((m) => ({ ...m, amount: String(m.amount) })) ?? [],
    solubilityGPerL: fieldText(p?.solubilityGPerL),
    character: p?.character ?? [],
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
        ...{ boughtOn: k.boughtOn ?? '', shop: k.shop ?? ('' as const), country: k.country ?? '' },
        count: String(k.count),
        ...(k.kit ? { kit: k.kit } : {}),
      })) ?? [],
  };
}

export const newProductId = () => newId<ProductId>();

/** A product as its page shows and changes it. */
export const productRecord = recordForm({
  name: 'product',
  shown: (product: Product) => toForm(product),
  schema: ProductForm,
  // Its tile is on no form.
  apply: ({ id, tile }, values) => ({ ...fromForm(id, values), ...(tile !== undefined && { tile }) }),
});
