import { z } from 'zod';
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

/** Units a pack or a dose is counted in; see `quantity/amount` for what they are worth. */
export const amountUnits = ['g', 'kg', 'oz', 'lb', 'mL', 'L', 'fl oz', 'gal', 'piece'] as const;
export const AmountUnit = z.enum(amountUnits);
export type AmountUnit = z.infer<typeof AmountUnit>;

const percent = z.number().min(0, 'Not below 0 %.').max(100, 'Not above 100 %.');

/** Label analysis in per cent: nitrogen as N, phosphorus as P₂O₅, potassium as K₂O, the rest as elements. */
export const LabelAnalysis = z.object({
  basis: z.enum(['w/w', 'w/v']),
  nPercent: percent,
  p2o5Percent: percent,
  k2oPercent: percent,
  caPercent: percent.nullable(),
  mgPercent: percent.nullable(),
  sPercent: percent.nullable(),
});
export type LabelAnalysis = z.infer<typeof LabelAnalysis>;

export const Pack = z.object({
  id: PackId,
  size: z.number('Give the pack size as a number.').positive('A pack holds more than nothing.'),
  unit: AmountUnit,
  /** price paid in minor units (cents) of `currency` */
  priceMinor: z.number('Give the price as a number.').int().min(0, 'A price isn’t negative.'),
  /** ISO 4217 code */
  currency: z.string().regex(/^[A-Z]{3}$/, 'Use the three-letter code, such as EUR.'),
  boughtOn: z.iso.date('Use a date such as 2026-03-01.').nullable(),
});
export type Pack = z.infer<typeof Pack>;

export const Claim = z.object({
  id: z.string().min(1),
  /** the label's words */
  text: z.string().trim().min(1, 'Write the claim as the label has it.').max(500),
});
export type Claim = z.infer<typeof Claim>;

/** How the product came to the reviewer; anything but “bought” is disclosed in the review. */
export const Obtained = z.enum(['bought', 'sent free', 'own product']);
export type Obtained = z.infer<typeof Obtained>;

export const Product = z.object({
  id: ProductId,
  name: z.string().trim().min(1, 'Give the product a name.').max(120),
  maker: z.string().trim().max(120),
  category: z.enum(productCategories),
  form: z.enum(productForms),
  analysis: LabelAnalysis.nullable(),
  /** mass of one litre, kg/L, where known: turns a dose by volume into a pack sold by mass */
  densityKgPerL: z.number().positive('A density is more than 0 kg/L.').max(25).nullable(),
  directions: z.string().trim().max(4000),
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
