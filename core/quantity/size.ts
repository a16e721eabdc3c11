import { type WeightUnit, toGrams, weightUnits } from './amount';
import { parseDecimal } from './decimal';
import { type AreaUnit, areaUnits, lengthUnits } from './measure';
import { type Result, err, ok } from '../model/result';

/** How people write a unit of size, longest first where one begins another. */
const lengths: readonly (readonly [pattern: string, metres: number])[] = [
  ['millimet(?:re|er)s?|mm', lengthUnits.mm],
  ['centimet(?:re|er)s?|cm', lengthUnits.cm],
  ['met(?:re|er)s?|m', lengthUnits.m],
  ['inch(?:es)?|in\\.?|″|"', lengthUnits.in],
  ["f(?:ee|oo)t|ft\\.?|′|'", lengthUnits.ft],
  ['yards?|yd\\.?', lengthUnits.yd],
];
const areas: readonly (readonly [pattern: string, unit: AreaUnit])[] = [
  ['cm²|cm2|sq\\.? ?cm', 'cm²'],
  ['m²|m2|sq\\.? ?m|square met(?:re|er)s?', 'm²'],
  ['sq\\.? ?in\\.?|square inch(?:es)?|in²|in2', 'sq in'],
  ['sq\\.? ?ft\\.?|square f(?:ee|oo)t|ft²|ft2', 'sq ft'],
  ['sq\\.? ?yds?\\.?|square yards?', 'sq yd'],
  ['acres?', 'acre'],
  ['hectares?|ha', 'ha'],
];
const number = '(\\d+(?:[.,]\\d+)?|[.,]\\d+)';

/** A figure and a unit out of a list, several of them added (“2 ft 6 in”); null where the text isn't that. */
function summed(text: string, units: readonly (readonly [string, number])[]): number | null {
  let [rest, sum] = [text.trim().toLowerCase(), 0];
  if (rest === '') return null;
  while (rest !== '') {
    const found = units.flatMap(([pattern, worth]) => {
      const m = new RegExp(`^${number}\\s*(?:${pattern})(?![\\p{L}²])\\s*`, 'u').exec(rest);
      return m ? [{ taken: m[0].length, value: Number(m[1]!.replace(',', '.')) * worth }] : [];
    })[0];
    if (!found) return null;
    sum += found.value;
    rest = rest.slice(found.taken);
  }
  return sum;
}

const tidy = (x: number) => Number(x.toPrecision(9));

/**
 * A length as people write it; a bare figure is centimetres.
 * @returns cm, or a line that says what is wrong
 * @example parseLengthCm('2 ft 6 in') // { ok: true, value: 76.2 }
 */
export function parseLengthCm(text: string): Result<number, string> {
  const bare = parseDecimal(text);
  const cm = bare ?? (summed(text, lengths) ?? NaN) * 100;
  return Number.isFinite(cm)
    ? ok(tidy(cm))
    : err(`“${text.trim()}” isn’t a length, such as 76 cm, 30 in or 2 ft 6 in.`);
}

/**
 * An area as people write it, also as two lengths; a bare figure is square centimetres.
 * @returns cm², or a line that says what is wrong
 * @example parseAreaCm2('900 sq ft') // { ok: true, value: 836127.36 }
 */
export function parseAreaCm2(text: string): Result<number, string> {
  const bare = parseDecimal(text);
  if (bare !== null) return ok(bare);
  const square = summed(
    text,
    areas.map(([pattern, unit]) => [pattern, areaUnits[unit]] as const),
  );
  if (square !== null) return ok(tidy(square * 10_000));
  const sides = text.split(/\s*[x×]\s*/i);
  if (sides.length === 2) {
    // “12 x 30 in”: a unit behind the second holds for both.
    const unit = /[^\d.,\s].*$/.exec(sides[1]!)?.[0] ?? '';
    const [a, b] = [
      parseLengthCm(/[a-z″"′']/i.test(sides[0]!) ? sides[0]! : `${sides[0]} ${unit}`),
      parseLengthCm(sides[1]!),
    ];
    if (a.ok && b.ok) return ok(tidy(a.value * b.value));
  }
  return err(`“${text.trim()}” isn’t an area, such as 1.5 m², 900 sq ft or 12 x 30 in.`);
}

/**
 * A weight as people write it; a bare figure is grams.
 * @returns g, or a line that says what is wrong
 * @example parseWeightG('2 oz') // { ok: true, value: 56.6990463 }
 */
export function parseWeightG(text: string): Result<number, string> {
  const bare = parseDecimal(text);
  const names: Record<WeightUnit, string> = {
    g: 'g|gr|grams?',
    kg: 'kg|kilos?|kilograms?',
    oz: 'oz\\.?|ounces?',
    lb: 'lbs?\\.?|pounds?',
  };
  const g =
    bare ??
    summed(
      text,
      weightUnits.map((u) => [names[u], toGrams(1, u)] as const),
    ) ??
    NaN;
  return Number.isFinite(g) ? ok(tidy(g)) : err(`“${text.trim()}” isn’t a weight, such as 12 g or 2 oz.`);
}
