import { type WeightUnit, fromGrams } from './amount';
import { type AreaUnit, type LengthUnit, type MeasureSystem, areaUnits, lengthUnits } from './units';
import { numberIn } from './number';
import { litresOf } from './volume';

/** What sizes are typed and shown in: centimetres, grams and litres, or inches, ounces and gallons. */
export interface SizeUnits {
  inches: boolean;
  measures: MeasureSystem;
}

/** What a plan says of it. */
export const sizeUnitsOf = (plan: {
  inches?: true | undefined;
  mixing: { measures: MeasureSystem };
}): SizeUnits => ({ inches: plan.inches ?? false, measures: plan.mixing.measures });

/** Decimals a figure may have and still be one that somebody typed. */
const ROUND_DECIMALS = 3;
const rounded = (x: number) => Number(x.toFixed(ROUND_DECIMALS));
const isRound = (x: number) => Math.abs(rounded(x) - x) <= 1e-7 * Math.abs(x);
/** Feet and pounds are taken for what is whole in them; 30 inches stay inches. */
const isWhole = (x: number) => isRound(x) && Number.isInteger(rounded(x));

interface Units<U extends string> {
  metric: { small: U; large?: U };
  inches: { small: U; large?: U };
  /** from how many of the small unit the large one is read */
  largeFrom: { metric: number; inches: number };
  /** how many of the unit a value is */
  in: (value: number, unit: U) => number;
}

const side = ({ inches }: SizeUnits) => (inches ? 'inches' : 'metric');

/** Whether a value is one that somebody typed on a side. */
const typedOn = <U extends string>(value: number, u: Units<U>, of: 'metric' | 'inches'): boolean => {
  const { small, large } = u[of];
  return isRound(u.in(value, small)) || (large !== undefined && isWhole(u.in(value, large)));
};

/** A value to be read, to four figures; on the other side where it is round there and isn't here: it was typed so. */
function toRead<U extends string>(value: number, units: SizeUnits, u: Units<U>): string {
  const own = side(units);
  const other = own === 'inches' ? 'metric' : 'inches';
  if (!typedOn(value, u, own) && typedOn(value, u, other))
    return toRead(value, { ...units, inches: other === 'inches' }, u);
  const { small, large } = u[own];
  const inLarge = large && (isWhole(u.in(value, large)) || u.in(value, small) >= u.largeFrom[side(units)]);
  const unit = inLarge && u.in(value, large) >= 1 ? large : small;
  return `${Number(u.in(value, unit).toPrecision(4))} ${unit}`;
}

/**
 * A value as a field holds it, without loss. What isn't round in inches was typed in centimetres, and stays in them.
 */
function toType<U extends string>(value: number | null, units: SizeUnits, u: Units<U>): string {
  if (value === null) return '';
  const bare = String(Number(value.toPrecision(9)));
  if (!units.inches) return bare;
  const { small, large } = u.inches;
  if (large && isWhole(u.in(value, large))) return `${rounded(u.in(value, large))} ${large}`;
  const x = u.in(value, small);
  return isRound(x) ? `${rounded(x)} ${small}` : `${bare} ${u.metric.small}`;
}

const lengths: Units<LengthUnit> = {
  metric: { small: 'cm' },
  inches: { small: 'in', large: 'ft' },
  largeFrom: { metric: Infinity, inches: 120 },
  in: (cm, unit) => cm / 100 / lengthUnits[unit],
};
const areas: Units<AreaUnit> = {
  metric: { small: 'cm²', large: 'm²' },
  inches: { small: 'sq in', large: 'sq ft' },
  largeFrom: { metric: 10_000, inches: 1000 },
  in: (cm2, unit) => cm2 / 10_000 / areaUnits[unit],
};
const weights: Units<WeightUnit> = {
  metric: { small: 'g' },
  inches: { small: 'oz', large: 'lb' },
  largeFrom: { metric: Infinity, inches: 160 },
  in: fromGrams,
};
const volumes = ({ measures }: SizeUnits): Units<'L' | 'gal'> => ({
  metric: { small: 'L' },
  inches: { small: 'gal' },
  largeFrom: { metric: Infinity, inches: Infinity },
  in: (litres, unit) => (unit === 'L' ? litres : litres / litresOf('gal', measures)),
});

/** A length to read. @example lengthText(76.2, { inches: true, measures: usMeasures }) // '30 in' */
export const lengthText = (cm: number, units: SizeUnits): string => toRead(cm, units, lengths);
/** Two lengths to read. @example sidesText(150, 40, { inches: false, measures: usMeasures }) // '150 × 40 cm' */
export function sidesText(a: number, b: number, units: SizeUnits): string {
  const [x, y] = [lengthText(a, units), lengthText(b, units)];
  const [, unit] = x.split(' ');
  return y.endsWith(` ${unit}`) ? `${x.slice(0, -unit!.length - 1)} × ${y}` : `${x} × ${y}`;
}
/** An area to read. @example areaText(836127.36, { inches: true, measures: usMeasures }) // '900 sq ft' */
export const areaText = (cm2: number, units: SizeUnits): string => toRead(cm2, units, areas);
/** A weight to read. @example weightText(56.69904625, { inches: true, measures: usMeasures }) // '2 oz' */
export const weightText = (g: number, units: SizeUnits): string => toRead(g, units, weights);
/** What a vessel holds, to read. @example holdsText(18.92705892, { inches: true, measures: usMeasures }) // '5 gal' */
export const holdsText = (litres: number, units: SizeUnits): string => toRead(litres, units, volumes(units));

/** A length for a field. @example lengthField(76.2, { inches: true, measures: usMeasures }) // '30 in' */
export const lengthField = (cm: number | null, units: SizeUnits): string => toType(cm, units, lengths);
/** An area for a field. @example areaField(729, { inches: false, measures: usMeasures }) // '729' */
export const areaField = (cm2: number | null, units: SizeUnits): string => toType(cm2, units, areas);
/** A weight for a field. @example weightField(56.69904625, { inches: true, measures: usMeasures }) // '2 oz' */
export const weightField = (g: number | null, units: SizeUnits): string => toType(g, units, weights);
/** A volume for a field. @example volumeField(18.92705892, { inches: true, measures: usMeasures }) // '5 gal' */
export const volumeField = (litres: number | null, units: SizeUnits): string =>
  toType(litres, units, volumes(units));

/** What a bare figure is in, by what is asked. */
const bareIn = {
  length: { metric: 'cm', inches: 'in' },
  area: { metric: 'cm²', inches: 'sq ft' },
  weight: { metric: 'g', inches: 'oz' },
  volume: { metric: 'L', inches: 'gal' },
} as const;
export type SizeKind = keyof typeof bareIn;

/** @example bareUnit('length', true) // 'in' */
export const bareUnit = (kind: SizeKind, inches: boolean): string =>
  bareIn[kind][inches ? 'inches' : 'metric'];

/** A typed figure with the unit it is meant in, where it has none. @example withUnit('30', 'length', true) // '30 in' */
export const withUnit = (typed: string, kind: SizeKind, inches: boolean): string =>
  inches && numberIn(typed) !== null ? `${typed.trim()} ${bareUnit(kind, true)}` : typed;
