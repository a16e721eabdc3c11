// Measurement systems by region: Unicode CLDR, supplemental data (measurementData; from memory). Currencies: ISO 4217.
import { describe, expect, it } from 'vitest';
import { minorDigits } from './money';
import { currencyOf, paperOf, regionOf, unitsOf } from './regionUnits';

describe('what a region goes by', () => {
  it.each([
    ['en-US', 'Letter'],
    ['fr-CA', 'Letter'],
    ['es-MX', 'Letter'],
    ['en-GB', 'A4'],
    ['de', 'A4'],
    ['', 'A4'],
  ] as const)('%s prints on %s', (language, paper) => expect(paperOf(language)).toBe(paper));
  it.each([
    ['en-US', true, 'us', 'us'],
    ['en', true, 'us', 'us'],
    ['en-GB', false, 'metric', 'imperial'],
    ['en-AU', false, 'metric', 'us'],
    ['de', false, 'metric', 'us'],
    ['my-MM', true, 'us', 'us'],
    ['es-US', true, 'us', 'us'],
  ])('%s: inches %s, spoons %s, gallons %s', (language, inches, spoon, gallon) => {
    expect(unitsOf(language)).toMatchObject({ inches, measures: { spoon, gallon } });
  });
  it('its money', () => {
    expect(['en-US', 'en-GB', 'de-CH', 'de-AT', 'ja', 'sv', 'xx'].map(currencyOf)).toEqual(
      ['USD', 'GBP', 'CHF', 'EUR', 'JPY', 'SEK', 'EUR'], // prettier-ignore
    );
    expect(minorDigits(currencyOf('ja-JP'))).toBe(0);
  });
  it('what is no language has no region', () => {
    expect(regionOf('not a language')).toBe('');
    expect(unitsOf('')).toMatchObject({ inches: false });
  });
});
