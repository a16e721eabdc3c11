import { z } from 'zod';
import { MeasureSystem } from '../quantity/units';
import { MicroElement } from './element';
import { PackId, ProductId } from './ids';

export const productCategories = [
  'fertilizer',
  'additive',
  'medium',
  'container',
  'light',
  'system',
  'seed',
  'accessory',
] as const;

export const productForms = ['liquid', 'powder', 'granules', 'tablets', 'solid', 'device'] as const;

export type ProductCategory = (typeof productCategories)[number];

/** Whether things of a kind are given in doses; the others are put in place once. */
export const isDosed = (category: ProductCategory): boolean =>
  category === 'fertilizer' || category === 'additive';

/** Units a pack or a dose is counted in; see `quantity/amount` for what they are worth. */
export const amountUnits = ['g', 'kg', 'oz', 'lb', 'mL', 'L', 'fl oz', 'gal', 'piece'] as const;
export const AmountUnit = z.enum(amountUnits);
export type AmountUnit = z.infer<typeof AmountUnit>;

const percent = z.number().min(0, 'Not below 0 %.').max(100, 'Not above 100 %.');

/** How a label prints phosphorus and potassium, and calcium, magnesium and sulfur. */
export const printedForms = ['oxide', 'element'] as const;

/**
 * Label analysis in per cent: nitrogen as N, phosphorus as P₂O₅, potassium as K₂O, the rest as elements.
 * That is how it is kept, whatever the label prints; `printedAs` only says how to show it again.
 */
export const LabelAnalysis = z.object({
  basis: z.enum(['w/w', 'w/v']),
  nPercent: percent,
  /** the forms of nitrogen, per cent N each; null where the label doesn't say */
  nitratePercent: percent.nullable(),
  ammoniumPercent: percent.nullable(),
  ureaPercent: percent.nullable(),
  p2o5Percent: percent,
  k2oPercent: percent,
  caPercent: percent.nullable(),
  mgPercent: percent.nullable(),
  sPercent: percent.nullable(),
  micros: z.partialRecord(MicroElement, percent),
  printedAs: z.object({ main: z.enum(printedForms), secondary: z.enum(printedForms) }),
});
export type LabelAnalysis = z.infer<typeof LabelAnalysis>;

/** Kinds of shop a pack may come from; its name is nobody's business. */
export const shopKinds = [
  'garden centre',
  'grow shop',
  'hardware store',
  'supermarket',
  'online shop',
  'market',
  'maker',
] as const;

export const Pack = z.object({
  id: PackId,
  size: z.number('Give the pack size as a number.').positive('A pack holds more than nothing.'),
  unit: AmountUnit,
  /** price paid in minor units (cents) of `currency` */
  priceMinor: z.number('Give the price as a number.').int().min(0, 'A price isn’t negative.'),
  /** ISO 4217 code */
  currency: z.string().regex(/^[A-Z]{3}$/, 'Use the three-letter code, such as EUR.'),
  boughtOn: z.iso.date('A whole day, such as 2026-03-01.').nullable(),
  /** where it was bought; left out: not said */
  shop: z.enum(shopKinds).optional(),
  country: z.string().trim().max(40, 'At most 40 letters.').optional(),
  /** how many of this pack were bought */
  count: z.number('How many packs?').int('Whole packs.').min(1, 'At least one.').max(1000),
  /** the kit of several bottles it came in, with the kit's one price; `priceMinor` is then this bottle's share */
  kit: z
    .object({
      id: z.string().min(1).max(60),
      name: z.string().trim().min(1, 'Name the kit.').max(80),
      priceMinor: z.number().int().min(0, 'A price isn’t negative.'),
    })
    .optional(),
});
export type Pack = z.infer<typeof Pack>;

export const Claim = z.object({
  id: z.string().min(1),
  /** the label's words */
  text: z.string().trim().min(1, 'Write the claim as the label has it.').max(500),
});
export type Claim = z.infer<typeof Claim>;

/** Level spoons of a powder, weighed: what one spoon of this volume held, g each. */
export const SpoonWeighing = z.object({
  volumeMl: z.number().positive('More than 0 mL.').max(1000),
  massesG: z
    .array(z.number().positive('A spoon holds more than nothing.'))
    .min(2, 'Weigh two at least.')
    .max(20),
});
export type SpoonWeighing = z.infer<typeof SpoonWeighing>;

/** A measure of one's own: a cap, a pump stroke, the spoon in the tub. */
export const OwnMeasure = z.object({
  name: z.string().trim().min(1, 'Name the measure.').max(30),
  amount: z.number().positive('It holds more than nothing.'),
  unit: z.enum(['g', 'mL']),
});
export type OwnMeasure = z.infer<typeof OwnMeasure>;

/** What a product is beyond its analysis, as far as mixing it goes. */
export const characters = ['acid', 'alkali', 'oxidiser', 'living'] as const;
export const Character = z.enum(characters);
export type Character = z.infer<typeof Character>;
export const characterNames: Record<Character, string> = {
  acid: 'acid (lowers pH)',
  alkali: 'alkali (raises pH)',
  oxidiser: 'peroxide or another oxidiser',
  living: 'living microbes',
};

/** How the product came to the reviewer; anything but “bought” is disclosed in the review. */
export const Obtained = z.enum(['bought', 'sent free', 'own product']);
export type Obtained = z.infer<typeof Obtained>;

/** Tiles that differ by their colour; beyond them patterns shift. */
export const TILE_COLOURS = 8;

export const Product = z.object({
  id: ProductId,
  /** the tile it has in the library; left out: it came from elsewhere and has none yet */
  tile: z.number().int().min(0).max(9999).optional(),
  name: z.string().trim().min(1, 'Give the product a name.').max(120),
  maker: z.string().trim().max(120),
  category: z.enum(productCategories),
  form: z.enum(productForms),
  analysis: LabelAnalysis.nullable(),
  /** mass of one litre, kg/L, where known: turns a dose by volume into a pack sold by mass */
  densityKgPerL: z.number().positive('A density is more than 0 kg/L.').max(25).nullable(),
  directions: z.string().trim().max(4000),
  /** the label's rate as printed, e.g. 1–2 tsp per gallon; empty when not entered */
  labelRate: z.string().trim().max(120),
  /** whose spoons and gallons the label means */
  labelMeasures: MeasureSystem,
  /** weighed spoons, which give a powder's bulk density */
  spoon: SpoonWeighing.nullable(),
  ownMeasures: z.array(OwnMeasure).max(10),
  /** g that dissolve in a litre of cold water; null when not known */
  solubilityGPerL: z.number().positive('More than 0 g/L.').max(5000).nullable(),
  character: z.array(Character),
  claims: z.array(Claim),
  packs: z.array(Pack),
  obtained: Obtained,
  notes: z.string().trim().max(4000),
});
export type Product = z.infer<typeof Product>;

/** The shelf of products as a file. */
export const LibraryFile = z.object({
  palazzo: z.literal('library'),
  version: z.number().int(),
  products: z.array(Product),
});
export type LibraryFile = z.infer<typeof LibraryFile>;
