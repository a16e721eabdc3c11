import { type Result, err, ok } from '../model/result';
import { describeNumberFault, numberAt, readNumber } from './number';
import {
  type MeasureSystem,
  type UnitName,
  areaUnits,
  lengthUnits,
  measureAt,
  measureWorth,
  unitAt,
  usMeasures,
} from './units';

/** What can be asked for, and what a bare figure and the answer are in. */
const asked = {
  length: { bare: 'cm', worth: lengthUnits.cm, such: 'a length, such as 76 cm, 30 in or 2 ft 6 in' },
  area: { bare: 'cm²', worth: areaUnits['cm²'], such: 'an area, such as 1.5 m², 900 sq ft or 12 x 30 in' },
  mass: { bare: 'g', worth: 1, such: 'a weight, such as 12 g or 2 oz' },
  volume: { bare: 'L', worth: 1000, such: 'a volume, such as 1 gal or 2.3 L' },
} as const satisfies Record<string, { bare: UnitName; worth: number; such: string }>;

export type Asked = keyof typeof asked;

/** A unit at the beginning of a text, and its worth in metres, square metres, grams or millilitres. */
function worthAt(text: string, of: Asked, measures: MeasureSystem) {
  if (of === 'length' || of === 'area') {
    const unit = unitAt(text, [of]);
    return (
      unit && {
        text: unit.text,
        worth: unit.name in lengthUnits ? lengthUnits[unit.name as 'm'] : areaUnits[unit.name as 'm²'],
      }
    );
  }
  const measure = measureAt(text);
  if (!measure) return null;
  const { dimension, base } = measureWorth(measure.measure, measures);
  return dimension === of ? { text: measure.text, worth: base } : null;
}

/** Figures with their units, added up (“2 ft 6 in”); null where the text isn't that. */
function summed(text: string, of: Asked, measures: MeasureSystem): Result<number, string> | null {
  let [rest, sum] = [text.trim(), 0];
  if (rest === '') return null;
  while (rest !== '') {
    const number = numberAt(rest);
    if (!number) return null;
    if (number.ambiguous)
      return err(describeNumberFault({ tag: 'ambiguousNumber', text: number.text, ...number.ambiguous }));
    rest = rest.slice(number.text.length).trimStart();
    const unit = worthAt(rest, of, measures);
    if (!unit) return null;
    sum += number.value * unit.worth;
    rest = rest.slice(unit.text.length).trimStart();
  }
  return ok(sum);
}

const tidy = (x: number) => Number(x.toPrecision(12));

/** “12 x 30 in”: a unit behind the second holds for both. */
function sides(text: string): Result<number, string> | null {
  const both = text.split(/\s*[x×]\s*/i);
  if (both.length !== 2) return null;
  const unit = /[^\d.,\s¼-¾⅐-⅞/][^\d]*$/u.exec(both[1]!)?.[0] ?? '';
  const [a, b] = [
    readQuantity(/[a-z″"′']/i.test(both[0]!) ? both[0]! : `${both[0]} ${unit}`, 'length'),
    readQuantity(both[1]!, 'length'),
  ];
  return a.ok && b.ok ? ok(a.value * b.value) : null;
}

/**
 * A size as people write it: figures with their units, an area also as two lengths; a bare figure is cm, cm², g or L.
 *
 * @param measures whose gallons and cups are meant
 * @returns cm, cm², g or L; or a line that says what is wrong
 * @example readQuantity('2 ft 6 in', 'length') // { ok: true, value: 76.2 }
 */
export function readQuantity(
  text: string,
  of: Asked,
  measures: MeasureSystem = usMeasures,
): Result<number, string> {
  if (text.trim() === '') return err(`Give ${asked[of].such}.`);
  const bare = readNumber(text);
  if (bare.ok) return bare;
  if (bare.error.tag === 'ambiguousNumber') return err(describeNumberFault(bare.error));
  const sum = summed(text, of, measures);
  if (sum) return sum.ok ? ok(tidy(sum.value / asked[of].worth)) : sum;
  const square = of === 'area' ? sides(text) : null;
  return square?.ok ? ok(tidy(square.value)) : err(`“${text.trim()}” isn’t ${asked[of].such}.`);
}
