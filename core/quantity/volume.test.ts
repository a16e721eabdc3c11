// Gallons: NIST SP 811, appendix B.
import { expect, it } from 'vitest';
import { usMeasures } from './units';
import { bucketUnits, litresOf, parseVolume, parseVolumePerUnit, volumeText } from './volume';

it.each([
  ['1 gal', 3.785411784],
  ['2.3 L', 2.3],
  ['2,3', 2.3],
  ['500 mL', 0.5],
  ['1 imperial gallon', 4.54609],
  ['½ gal', 1.892705892],
])('%s', (text, litres) => {
  const r = parseVolume(text, usMeasures);
  expect(r.ok && r.value).toBeCloseTo(litres, 9);
});

it('gallons are the reader’s own', () => {
  expect(parseVolume('1 gal', { spoon: 'metric', gallon: 'imperial' })).toEqual({ ok: true, value: 4.54609 });
});

it.each([
  ['', /Give a volume/],
  ['0', /More than 0/],
  ['3 g', /“3 g” isn’t a volume/],
  ['1–2 gal', /isn’t a volume/],
  ['5 mL/L', /isn’t a volume/],
  ['1 bucket', /“1 bucket” isn’t a volume/],
  ['1,250 mL', /as 1.250 or as 1250/],
])('%s is refused', (text, said) => {
  const r = parseVolume(text, usMeasures);
  expect(!r.ok && r.error).toMatch(said);
});

it('said in a bucket’s marks, litres beside', () => {
  const imperial = { spoon: 'metric', gallon: 'imperial' } as const;
  expect(volumeText(2.64, 'L', usMeasures)).toBe('2.64 L');
  expect(volumeText(3.785411784, 'gal', usMeasures)).toBe('1 gal (3.785 L)');
  expect(volumeText(4.54609, 'gal', imperial)).toBe('1 gal (4.546 L)');
  // what is said can be read back, whatever the marks
  for (const unit of bucketUnits) {
    const said = volumeText(7.5, unit, imperial).replace(/ \(.*/, '');
    const read = parseVolume(said, imperial);
    expect(read.ok && read.value).toBeCloseTo(7.5, 2);
    expect(litresOf(unit, imperial)).toBe(unit === 'L' ? 1 : 4.54609);
  }
});

it.each([
  ['0.6', null, 0.6],
  ['1 gal', null, 3.785411784],
  ['2 L/m²', 0.5, 1],
  // 1,000 sq ft are 92.903 m² (NIST SP 811): 10 L on them are 0.10764 L on a square metre
  ['10 L per 1000 sq ft', 1, 0.1076391],
])('%s for a unit of %s m²', (text, areaM2, litres) => {
  const r = parseVolumePerUnit(text, usMeasures, areaM2);
  expect(r.ok && r.value).toBeCloseTo(litres, 6);
});
it.each([
  ['2 L/m²', null, /How large is a unit/],
  ['2 g/m²', 1, /isn’t a volume/],
  ['2 L/L', 1, /isn’t a volume/],
  ['1–2 L/m²', 1, /isn’t a volume/],
])('%s for a unit of %s m² is refused', (text, areaM2, said) => {
  const r = parseVolumePerUnit(text, usMeasures, areaM2);
  expect(!r.ok && r.error).toMatch(said);
});
