// Worths of the units: NIST SP 811, appendix B.
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { err, ok } from '../model/result';
import { readingsOf } from './number';
import { inFigures } from './region';
import { type UnitName, units, usMeasures } from './units';
import {
  areaField,
  areaText,
  holdsText,
  lengthField,
  lengthText,
  sidesText,
  volumeField,
  weightField,
  weightText,
  withUnit,
} from './sizeText';
import { parseVolume } from './volume';
import { readQuantity } from './quantity';

/** Every way a pattern of the table may be written. */
function spellingsOf(unit: UnitName): string[] {
  const every = (pattern: string): string[] => {
    const optional = /\((?:\?:)?([^()]*)\)(\??)|(\\?.)\?/u.exec(pattern);
    if (!optional) return [pattern.replaceAll('\\', '')];
    const [all, inside, maybe, letter] = optional;
    const [before, after] = [pattern.slice(0, optional.index), pattern.slice(optional.index + all.length)];
    const choices = letter !== undefined ? [letter, ''] : [...inside!.split('|'), ...(maybe ? [''] : [])];
    return choices.flatMap((c) => every(before + c + after));
  };
  const parts: string[] = [];
  let [depth, part] = [0, ''];
  for (const c of units[unit].spelled) {
    if (c === '|' && depth === 0) {
      parts.push(part);
      part = '';
      continue;
    }
    depth += c === '(' ? 1 : c === ')' ? -1 : 0;
    part += c;
  }
  return [...parts, part].flatMap(every);
}

describe('sizes as people write them', () => {
  it.each([
    ['76', 76],
    ['30 in', 76.2],
    ['2 ft 6 in', 76.2],
    ['2\' 6"', 76.2],
    ['1,5 m', 150],
    ['5 mm', 0.5],
  ])('%s is %s cm', (text, cm) => {
    expect(readQuantity(text, 'length')).toEqual({ ok: true, value: cm });
  });
  it.each([
    ['1530', 1530],
    ['900 sq ft', 836_127.36],
    ['1.5 m²', 15_000],
    ['12 x 30 in', 12 * 30 * 6.4516],
    ['0.5 m x 30 cm', 1500],
    ['1 acre', 40_468_564.2],
  ])('%s is %s cm²', (text, cm2) => {
    const area = readQuantity(text, 'area');
    expect(area.ok && area.value).toBeCloseTo(cm2, 1);
  });
  it.each([
    ['12', 12],
    ['2 oz', 56.69904625],
    ['1 lb 4 oz', 566.9904625],
    ['0,5 kg', 500],
  ])('%s is %s g', (text, g) => {
    const weight = readQuantity(text, 'mass');
    expect(weight.ok && weight.value).toBeCloseTo(g, 5);
  });
  it.each(['30 inn', 'wide', '3 L', '', '5 x'])('“%s” is none of them', (text) => {
    expect([
      readQuantity(text, 'length').ok,
      readQuantity(text, 'area').ok,
      readQuantity(text, 'mass').ok,
    ]).toEqual([false, false, false]);
  });
});

it.each([
  ['5 kgs', 'mass', 5000],
  ['500 mg', 'mass', 0.5],
  ['2 yd²', 'area', 2 * 8361.2736],
  ['1,000 sq ft', 'area', 1000 * 929.0304],
  ['1,000 g', 'mass', 1000],
  ['1,000 L', 'volume', 1000],
  ['5 1/4 in', 'length', 5.25 * 2.54],
  ['14¾"', 'length', 14.75 * 2.54],
  ['1’250 g', 'mass', 1250],
  ['1 250,5 g', 'mass', 1250.5],
  ['5 1/4 x 10 1/2 in', 'area', 5.25 * 10.5 * 6.4516],
] as const)('%s is a %s of %s', (text, of, value) => {
  const read = readQuantity(text, of);
  expect(read.ok && read.value).toBeCloseTo(value, 6);
});

it('what has two readings is refused with both, a unit behind it or not', () => {
  for (const text of ['1,250', '1,250 g'])
    expect(readQuantity(text, 'mass')).toEqual(
      err('“1,250” can be read as 1.250 or as 1250: write the one you mean.'),
    );
  expect(readingsOf('12 x 1,250 mm')).toEqual(['12 x 1.250 mm', '12 x 1250 mm']);
  // Where a comma is the mark there is one reading.
  expect(inFigures('de-DE', () => readQuantity('1,250 kg', 'mass'))).toEqual(ok(1250));
});

it('is read the same however it is spelled: figure, mark, space, unit, capitals', () => {
  const spelled = (Object.keys(units) as UnitName[]).flatMap((unit) => {
    const { dimension, worth } = units[unit];
    if (dimension === 'count' || typeof worth !== 'number') return [];
    return spellingsOf(unit).map((text) => ({
      text,
      of: dimension,
      worth: worth / { length: 0.01, area: 0.0001, mass: 1, volume: 1000 }[dimension],
    }));
  });
  expect(spelled.length).toBeGreaterThan(80);
  const figure = fc.oneof(
    fc.integer({ min: 1, max: 999_999 }).map((n): [string, number] => [String(n), n]),
    fc.integer({ min: 1, max: 99_999 }).map((n): [string, number] => [(n / 100).toFixed(2), n / 100]),
    fc
      .integer({ min: 1, max: 99_999 })
      .map((n): [string, number] => [(n / 100).toFixed(2).replace('.', ','), n / 100]),
    fc
      .integer({ min: 1_000_000, max: 99_999_999 })
      .map((n): [string, number] => [n.toLocaleString('en-US'), n]),
    fc.integer({ min: 1000, max: 999_999 }).map((n): [string, number] => [n.toLocaleString('de-CH'), n]),
    fc
      .tuple(fc.nat(99), fc.integer({ min: 1, max: 15 }))
      .map(([w, n]): [string, number] => [w === 0 ? `${n}/16` : `${w} ${n}/16`, w + n / 16]),
    fc
      .tuple(fc.integer({ min: 1, max: 99 }), fc.constantFrom('¼', '½', '¾'))
      .map(([w, s]): [string, number] => [`${w}${s}`, w + ['¼', '½', '¾'].indexOf(s) / 4 + 0.25]),
  );
  fc.assert(
    fc.property(
      figure,
      fc.constantFrom(...spelled),
      fc.constantFrom('', ' ', '\u00a0'),
      fc.boolean(),
      ([text, value], u, space, loud) => {
        // A foot’s mark between figures sets thousands apart.
        const unit = loud ? u.text.toUpperCase() : u.text;
        const read = readQuantity(`${text}${space}${unit}`, u.of);
        expect(read.ok && Math.abs(read.value / (value * u.worth) - 1)).toBeLessThan(1e-9);
      },
    ),
    { numRuns: 10_000 },
  );
});

describe('sizes in the units of whoever reads them', () => {
  const inches = { inches: true, measures: usMeasures };
  const metric = { inches: false, measures: usMeasures };

  it('are inches, whole feet, square feet, ounces and gallons', () => {
    expect(lengthText(76.2, inches)).toBe('30 in');
    expect(lengthText(121.92, inches)).toBe('4 ft');
    expect(lengthText(100, inches)).toBe('100 cm');
    expect(lengthText(1000, inches)).toBe('1000 cm');
    expect(sidesText(121.92, 60.96, inches)).toBe('4 × 2 ft');
    expect(sidesText(121.92, 50.8, inches)).toBe('4 ft × 20 in');
    expect(areaText(836_127.36, inches)).toBe('900 sq ft');
    expect(areaText(100 * 6.4516, inches)).toBe('100 sq in');
    expect(weightText(56.69904625, inches)).toBe('2 oz');
    expect(weightText(453.59237, inches)).toBe('1 lb');
    expect(holdsText(18.92705892, inches)).toBe('5 gal');
    // NIST SP 811: an imperial gallon is 4.54609 L.
    expect(holdsText(4.54609, { inches: true, measures: { spoon: 'metric', gallon: 'imperial' } })).toBe(
      '1 gal',
    );
  });

  it('or centimetres, square metres from one on, grams and litres', () => {
    expect(lengthText(76.2, metric)).toBe('76.2 cm');
    expect(areaText(729, metric)).toBe('729 cm²');
    expect(areaText(15_300, metric)).toBe('1.53 m²');
    expect(weightText(12, metric)).toBe('12 g');
    expect(holdsText(7.5, metric)).toBe('7.5 L');
  });

  it('stay in a field as they were typed, so that saving it again changes nothing', () => {
    expect(lengthField(100, inches)).toBe('100 cm');
    expect(lengthField(76.2, inches)).toBe('30 in');
    expect(lengthField(76.2, metric)).toBe('76.2');
    const kinds = [
      [lengthField, (text: string) => readQuantity(text, 'length')],
      [areaField, (text: string) => readQuantity(text, 'area')],
      [weightField, (text: string) => readQuantity(text, 'mass')],
      [volumeField, (text: string) => parseVolume(text, usMeasures)],
    ] as const;
    const values = fc.oneof(
      fc.integer({ min: 1, max: 1_000_000 }).map((n) => n / 100),
      fc.integer({ min: 1, max: 4000 }).map((n) => (n / 4) * 2.54),
      fc.integer({ min: 1, max: 4000 }).map((n) => (n / 4) * 28.349523125),
    );
    fc.assert(
      fc.property(values, fc.boolean(), fc.nat(3), (value, inch, kind) => {
        const [field, parse] = kinds[kind]!;
        const back = parse(field(value, { inches: inch, measures: usMeasures }));
        expect(back.ok && Math.abs(back.value / value - 1)).toBeLessThan(2e-7);
      }),
    );
  });

  it('a bare figure is inches where sizes are in inches', () => {
    expect(withUnit('30', 'length', true)).toBe('30 in');
    expect(withUnit(' 2,5 ', 'weight', true)).toBe('2,5 oz');
    expect(withUnit('30 cm', 'length', true)).toBe('30 cm');
    expect(withUnit('30', 'length', false)).toBe('30');
    expect(withUnit('', 'area', true)).toBe('');
  });
});

it('what was typed in one unit is printed in it, whatever the trial has', () => {
  const [metric, inches] = [false, true].map((i) => ({ inches: i, measures: usMeasures }));
  expect([weightText(20, inches!), weightText(56.69904625, inches!)]).toEqual(['20 g', '2 oz']);
  expect([holdsText(0.946352946, metric!), holdsText(1, metric!)]).toEqual(['0.25 gal', '1 L']);
});
