// Worths of the units: NIST SP 811, appendix B.
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { usMeasures } from './measure';
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
import { parseAreaCm2, parseLengthCm, parseWeightG } from './size';

describe('sizes as people write them', () => {
  it.each([
    ['76', 76],
    ['30 in', 76.2],
    ['2 ft 6 in', 76.2],
    ['2\' 6"', 76.2],
    ['1,5 m', 150],
    ['5 mm', 0.5],
  ])('%s is %s cm', (text, cm) => {
    expect(parseLengthCm(text)).toEqual({ ok: true, value: cm });
  });
  it.each([
    ['1530', 1530],
    ['900 sq ft', 836_127.36],
    ['1.5 m²', 15_000],
    ['12 x 30 in', 12 * 30 * 6.4516],
    ['0.5 m x 30 cm', 1500],
    ['1 acre', 40_468_564.2],
  ])('%s is %s cm²', (text, cm2) => {
    const area = parseAreaCm2(text);
    expect(area.ok && area.value).toBeCloseTo(cm2, 1);
  });
  it.each([
    ['12', 12],
    ['2 oz', 56.69904625],
    ['1 lb 4 oz', 566.9904625],
    ['0,5 kg', 500],
  ])('%s is %s g', (text, g) => {
    const weight = parseWeightG(text);
    expect(weight.ok && weight.value).toBeCloseTo(g, 5);
  });
  it.each(['30 inn', 'wide', '3 L', '', '5 x'])('“%s” is none of them', (text) => {
    expect([parseLengthCm(text).ok, parseAreaCm2(text).ok, parseWeightG(text).ok]).toEqual([
      false,
      false,
      false,
    ]);
  });
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
      [lengthField, parseLengthCm],
      [areaField, parseAreaCm2],
      [weightField, parseWeightG],
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
