import { z } from 'zod';
import type { Dimension } from './amount';

/** Whose spoons and cups are meant. Kitchen spoons differ by a fifth from country to country. */
export const spoonSystems = ['us', 'metric', 'imperial'] as const;
/** Whose gallons, quarts, pints and fluid ounces are meant. */
export const gallonSystems = ['us', 'imperial'] as const;

export const MeasureSystem = z.object({ spoon: z.enum(spoonSystems), gallon: z.enum(gallonSystems) });
export type MeasureSystem = z.infer<typeof MeasureSystem>;
export type System = (typeof spoonSystems)[number];

export const usMeasures: MeasureSystem = { spoon: 'us', gallon: 'us' };

/** Measures a label or a person writes; spoons and gallons depend on the system. */
export const measureUnits = [
  'mg',
  'g',
  'kg',
  'oz',
  'lb',
  'mL',
  'cL',
  'L',
  'tsp',
  'tbsp',
  'cup',
  'fl oz',
  'pt',
  'qt',
  'gal',
  'piece',
] as const;
export type MeasureUnit = (typeof measureUnits)[number];

const spoons = new Set<MeasureUnit>(['tsp', 'tbsp', 'cup']);
const gallons = new Set<MeasureUnit>(['fl oz', 'pt', 'qt', 'gal']);

/** Which systems a unit can be of: none for grams and litres, three for spoons, two for gallons. */
export const systemsOf = (unit: MeasureUnit): readonly System[] =>
  spoons.has(unit) ? spoonSystems : gallons.has(unit) ? gallonSystems : [];

const fixed: Partial<Record<MeasureUnit, { dimension: Dimension; base: number }>> = {
  mg: { dimension: 'mass', base: 0.001 },
  g: { dimension: 'mass', base: 1 },
  kg: { dimension: 'mass', base: 1000 },
  oz: { dimension: 'mass', base: 28.349523125 },
  lb: { dimension: 'mass', base: 453.59237 },
  mL: { dimension: 'volume', base: 1 },
  cL: { dimension: 'volume', base: 10 },
  L: { dimension: 'volume', base: 1000 },
  piece: { dimension: 'count', base: 1 },
};

/**
 * Millilitres by system. US: NIST SP 811, appendix B. Imperial gallon 4.54609 L (NIST SP 811) and its parts;
 * the imperial spoons are an eighth and a twenty-fourth of a gill, the imperial cup half a pint (common
 * practice, from memory). Metric spoons and cup: 5, 15 and 250 mL (common practice; 5 and 15 mL also in
 * 21 CFR 101.9 for labels).
 */
const bySystem: Record<System, Partial<Record<MeasureUnit, number>>> = {
  us: {
    tsp: 4.92892159375,
    tbsp: 14.78676478125,
    cup: 236.5882365,
    'fl oz': 29.5735295625,
    pt: 473.176473,
    qt: 946.352946,
    gal: 3785.411784,
  },
  metric: { tsp: 5, tbsp: 15, cup: 250 },
  imperial: {
    tsp: 4546.09 / 32 / 24,
    tbsp: 4546.09 / 32 / 8,
    cup: 4546.09 / 16,
    'fl oz': 4546.09 / 160,
    pt: 4546.09 / 8,
    qt: 4546.09 / 4,
    gal: 4546.09,
  },
};

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
  const known = fixed[unit];
  if (known) return known;
  const meant = system ?? (spoons.has(unit) ? reader.spoon : reader.gallon);
  const base = bySystem[meant][unit];
  if (base === undefined) throw new RangeError(`There is no ${meant} ${unit}.`);
  return { dimension: 'volume', base };
}

export const systemNames: Record<System, string> = { us: 'US', metric: 'metric', imperial: 'imperial' };

/** A measure as it is printed. @example measureName({ unit: 'gal', system: 'us' }) // 'US gal' */
export const measureName = ({ unit, system }: Measure): string =>
  system ? `${systemNames[system]} ${unit}` : unit;

/** Square metres. 1 in² 6.4516 cm², 1 acre 4046.8564224 m² (international acre), 1 ft² 0.09290304 m²: NIST SP 811. */
export const areaUnits = {
  'sq ft': 0.09290304,
  'sq yd': 0.83612736,
  'sq in': 0.00064516,
  'cm²': 0.0001,
  'm²': 1,
  acre: 4046.8564224,
  ha: 10_000,
};
export type AreaUnit = keyof typeof areaUnits;

/** Metres. 1 in 25.4 mm, 1 ft 0.3048 m, 1 yd 0.9144 m: NIST SP 811. */
export const lengthUnits = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048, yd: 0.9144 };
export type LengthUnit = keyof typeof lengthUnits;
