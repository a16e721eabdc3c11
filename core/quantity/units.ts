import { z } from 'zod';

export type Dimension = 'mass' | 'volume' | 'count';
type AnyDimension = Dimension | 'area' | 'length';

/** Whose spoons and cups are meant. Kitchen spoons differ by a fifth from country to country. */
export const spoonSystems = ['us', 'metric', 'imperial'] as const;
/** Whose gallons, quarts, pints and fluid ounces are meant. */
export const gallonSystems = ['us', 'imperial'] as const;

export const MeasureSystem = z.object({ spoon: z.enum(spoonSystems), gallon: z.enum(gallonSystems) });
export type MeasureSystem = z.infer<typeof MeasureSystem>;
export type System = (typeof spoonSystems)[number];

export const usMeasures: MeasureSystem = { spoon: 'us', gallon: 'us' };

interface UnitOfMeasure {
  dimension: AnyDimension;
  /** grams, millilitres, pieces, square metres or metres; by system where it is a kitchen's or a gallon's part */
  worth: number | Partial<Record<System, number>>;
  /** how people write it, a pattern */
  spelled: string;
}

/** Imperial gallon 4.54609 L (NIST SP 811). */
const IMPERIAL = 4546.09;

/**
 * Every unit of measure there is: a new one is a line here.
 *
 * Worths: NIST SP 811, appendix B. The imperial spoons are an eighth and a twenty-fourth of a gill, the imperial cup half a
 * pint (common practice, from memory). Metric spoons and cup: 5, 15 and 250 mL (common practice; 5 and 15 mL also in 21 CFR
 * 101.9 for labels).
 */
export const units = {
  mg: { dimension: 'mass', worth: 0.001, spelled: 'mg|milligram(?:me)?s?' },
  g: { dimension: 'mass', worth: 1, spelled: 'g|gr|gram(?:me)?s?' },
  kg: { dimension: 'mass', worth: 1000, spelled: 'kgs?|kilos?|kilogram(?:me)?s?' },
  oz: { dimension: 'mass', worth: 28.349523125, spelled: 'oz\\.?|ounces?' },
  lb: { dimension: 'mass', worth: 453.59237, spelled: 'lbs?\\.?|pounds?' },
  mL: { dimension: 'volume', worth: 1, spelled: 'mls?|cc|millilit(?:re|er)s?' },
  cL: { dimension: 'volume', worth: 10, spelled: 'cls?|centilit(?:re|er)s?' },
  L: { dimension: 'volume', worth: 1000, spelled: 'l|lit(?:re|er)s?|ltrs?' },
  tsp: {
    dimension: 'volume',
    worth: { us: 4.92892159375, metric: 5, imperial: IMPERIAL / 32 / 24 },
    spelled: 'tsps?\\.?|teaspoons?|teaspoonfuls?',
  },
  tbsp: {
    dimension: 'volume',
    worth: { us: 14.78676478125, metric: 15, imperial: IMPERIAL / 32 / 8 },
    spelled: 'tbsps?\\.?|tbs\\.?|tablespoons?|tablespoonfuls?',
  },
  cup: {
    dimension: 'volume',
    worth: { us: 236.5882365, metric: 250, imperial: IMPERIAL / 16 },
    spelled: 'cups?|cupfuls?',
  },
  'fl oz': {
    dimension: 'volume',
    worth: { us: 29.5735295625, imperial: IMPERIAL / 160 },
    spelled: 'fl\\.? ?oz\\.?|fluid ounces?',
  },
  pt: { dimension: 'volume', worth: { us: 473.176473, imperial: IMPERIAL / 8 }, spelled: 'pts?\\.?|pints?' },
  qt: { dimension: 'volume', worth: { us: 946.352946, imperial: IMPERIAL / 4 }, spelled: 'qts?\\.?|quarts?' },
  gal: {
    dimension: 'volume',
    worth: { us: 3785.411784, imperial: IMPERIAL },
    spelled: 'gals?\\.?|gallons?',
  },
  piece: {
    dimension: 'count',
    worth: 1,
    spelled: 'pieces?|pcs?\\.?|tablets?|tabs?|sticks?|spikes?',
  },
  'sq in': {
    dimension: 'area',
    worth: 0.00064516,
    spelled: 'sq\\.? ?in\\.?|square inch(?:es)?|in²|in2',
  },
  'sq ft': {
    dimension: 'area',
    worth: 0.09290304,
    spelled: 'sq\\.? ?f(?:ee)?t\\.?|square f(?:ee|oo)t|ft²|ft2',
  },
  'sq yd': {
    dimension: 'area',
    worth: 0.83612736,
    spelled: 'sq\\.? ?yds?\\.?|square yards?|yd²|yd2',
  },
  'cm²': { dimension: 'area', worth: 0.0001, spelled: 'cm²|cm2|sq\\.? ?cm|square centimet(?:re|er)s?' },
  'm²': { dimension: 'area', worth: 1, spelled: 'm²|m2|sq\\.? ?m|sqm|square met(?:re|er)s?' },
  acre: { dimension: 'area', worth: 4046.8564224, spelled: 'acres?' },
  ha: { dimension: 'area', worth: 10_000, spelled: 'ha|hectares?' },
  mm: { dimension: 'length', worth: 0.001, spelled: 'mm|millimet(?:re|er)s?' },
  cm: { dimension: 'length', worth: 0.01, spelled: 'cm|centimet(?:re|er)s?' },
  m: { dimension: 'length', worth: 1, spelled: 'm|met(?:re|er)s?' },
  in: { dimension: 'length', worth: 0.0254, spelled: 'in\\.?|inch(?:es)?|″|"|”' },
  ft: { dimension: 'length', worth: 0.3048, spelled: "ft\\.?|f(?:ee|oo)t|′|'|’" },
  yd: { dimension: 'length', worth: 0.9144, spelled: 'yds?\\.?|yards?' },
} as const satisfies Record<string, UnitOfMeasure>;

export type UnitName = keyof typeof units;
type Of<D extends AnyDimension> = {
  [K in UnitName]: (typeof units)[K]['dimension'] extends D ? K : never;
}[UnitName];
/** Measures a label or a person writes; spoons and gallons depend on the system. */
export type MeasureUnit = Of<Dimension>;
export type AreaUnit = Of<'area'>;
export type LengthUnit = Of<'length'>;

/** Square metres. */
export const areaUnits = worthsOf('area') as Record<AreaUnit, number>;
/** Metres. */
export const lengthUnits = worthsOf('length') as Record<LengthUnit, number>;

function worthsOf(dimension: AnyDimension): Record<string, number> {
  return Object.fromEntries(
    Object.entries(units).flatMap(([name, u]) =>
      u.dimension === dimension && typeof u.worth === 'number' ? [[name, u.worth]] : [],
    ),
  );
}

/** Which systems a unit can be of: none for grams and litres, three for spoons, two for gallons. */
export function systemsOf(unit: MeasureUnit): readonly System[] {
  const { worth } = units[unit];
  return typeof worth === 'number' ? [] : spoonSystems.filter((s) => s in worth);
}

/** A measure as it is meant: `system` null leaves spoons and gallons to whoever reads it. */
export interface Measure {
  unit: MeasureUnit;
  system: System | null;
}

/**
 * What one of a measure is: grams, millilitres or pieces.
 *
 * @param reader whose spoons and gallons are meant where the measure doesn't say
 * @example measureWorth({ unit: 'tsp', system: null }, usMeasures).base // 4.92892159375
 */
export function measureWorth(
  { unit, system }: Measure,
  reader: MeasureSystem,
): { dimension: Dimension; base: number } {
  const { dimension, worth } = units[unit];
  if (typeof worth === 'number') return { dimension, base: worth };
  const meant = system ?? ('metric' in worth ? reader.spoon : reader.gallon);
  const base = (worth as Partial<Record<System, number>>)[meant];
  if (base === undefined) throw new RangeError(`There is no ${meant} ${unit}.`);
  return { dimension, base };
}

export const systemNames: Record<System, string> = { us: 'US', metric: 'metric', imperial: 'imperial' };

/** A measure as it is printed. @example measureName({ unit: 'gal', system: 'us' }) // 'US gal' */
export const measureName = ({ unit, system }: Measure): string =>
  system ? `${systemNames[system]} ${unit}` : unit;

/** A pattern that a text must begin with, and that ends where no letter follows: “g” isn't the beginning of “gal”. */
export const wordAt = (pattern: string): RegExp => new RegExp(`^(?:${pattern})(?![\\p{L}²])`, 'iu');

const spellings = (Object.entries(units) as [UnitName, UnitOfMeasure][]).map(
  ([name, { dimension, spelled }]) => ({ name, dimension, pattern: wordAt(spelled) }),
);

/** A unit at the beginning of a text, of one of these dimensions: the longest spelling. @example unitAt('fl oz', ['volume'])?.name // 'fl oz' */
export function unitAt<D extends AnyDimension>(
  text: string,
  of: readonly D[],
): { name: Of<D>; text: string } | null {
  let longest: { name: UnitName; text: string } | null = null;
  for (const { name, dimension, pattern } of spellings) {
    if (!(of as readonly AnyDimension[]).includes(dimension)) continue;
    const found = pattern.exec(text)?.[0];
    if (found !== undefined && found.length > (longest?.text.length ?? 0)) longest = { name, text: found };
  }
  return longest as { name: Of<D>; text: string } | null;
}

const systemSpellings: readonly (readonly [System, RegExp])[] = [
  ['us', wordAt('us|u\\.s\\.')],
  ['imperial', wordAt('imp\\.?|imperial|uk')],
  ['metric', wordAt('metric')],
];

/** A measure at the beginning of a text, with its system where it says one. @example measureAt('US gal')?.measure.system // 'us' */
export function measureAt(text: string): { measure: Measure; text: string } | null {
  for (const [system, pattern] of systemSpellings) {
    const prefix = pattern.exec(text)?.[0];
    if (prefix === undefined) continue;
    const after = text.slice(prefix.length).trimStart();
    const unit = unitAt(after, ['mass', 'volume', 'count']);
    if (unit && systemsOf(unit.name).includes(system))
      return {
        measure: { unit: unit.name, system },
        text: text.slice(0, text.length - after.length + unit.text.length),
      };
  }
  const unit = unitAt(text, ['mass', 'volume', 'count']);
  return unit && { measure: { unit: unit.name, system: null }, text: unit.text };
}
