import { type MeasureSystem, usMeasures } from './units';
import type { TemperatureUnit } from './region';

/** What sizes and measures a region goes by. */
export const unitChoices = {
  metric: {
    ...{ name: 'cm, g, L, °C', inches: false, degrees: '°C' },
    measures: { spoon: 'metric', gallon: 'us' },
  },
  us: { name: 'in, oz, US gal, °F', inches: true, degrees: '°F', measures: usMeasures },
  imperial: {
    ...{ name: 'in, oz, imperial gal, °C', inches: true, degrees: '°C' },
    measures: { spoon: 'imperial', gallon: 'imperial' },
  },
} as const satisfies Record<
  string,
  { name: string; inches: boolean; degrees: TemperatureUnit; measures: MeasureSystem }
>;

export type UnitChoice = keyof typeof unitChoices;
export const unitChoiceIds = Object.keys(unitChoices) as [UnitChoice, ...UnitChoice[]];

/** The region of a language tag, where it says none the likeliest one. @example regionOf('de') // 'DE' */
export function regionOf(language: string): string {
  try {
    return new Intl.Locale(language).maximize().region ?? '';
  } catch {
    return '';
  }
}

/** CLDR's regions that go by US measures. */
const usRegions = new Set(['US', 'LR', 'MM']);
/** Where a gallon is an imperial one, beside metric sizes (CLDR has the United Kingdom as mixed). */
const imperialGallon = new Set(['GB', 'IE']);

/**
 * Sizes and measures a language's region goes by.
 * @example unitsOf('en-GB') // { inches: false, measures: { spoon: 'metric', gallon: 'imperial' } }
 */
export function unitsOf(language: string): { inches: boolean; measures: MeasureSystem } {
  const region = regionOf(language);
  if (usRegions.has(region)) return unitChoices.us;
  const { inches, measures } = unitChoices.metric;
  return { inches, measures: imperialGallon.has(region) ? { ...measures, gallon: 'imperial' } : measures };
}

/** What is printed on. */
export type Paper = 'A4' | 'Letter';

/** CLDR's regions that print on US Letter (from memory). */
const letterRegions = new Set([
  ...['US', 'CA', 'MX', 'BZ', 'CL', 'CO', 'CR', 'GT', 'NI', 'PA', 'PH', 'PR', 'SV', 'VE'],
]);

/** The paper of a language's region. @example paperOf('en-CA') // 'Letter' */
export const paperOf = (language: string): Paper => (letterRegions.has(regionOf(language)) ? 'Letter' : 'A4');

/** CLDR's regions that write temperatures in Fahrenheit (from memory). */
const fahrenheit = new Set(['US', 'BS', 'BZ', 'KY', 'PR', 'PW']);

/** The degrees a language's region writes temperatures in. @example degreesOf('en-US') // '°F' */
export const degreesOf = (language: string): TemperatureUnit =>
  fahrenheit.has(regionOf(language)) ? '°F' : '°C';

/** Money of a region, ISO 4217; the euro where it isn't in this list. */
const currencies: Record<string, string> = {
  ...{ US: 'USD', GB: 'GBP', CH: 'CHF', LI: 'CHF', SE: 'SEK', NO: 'NOK', DK: 'DKK', PL: 'PLN', CZ: 'CZK' },
  ...{ HU: 'HUF', RO: 'RON', TR: 'TRY', UA: 'UAH', CA: 'CAD', AU: 'AUD', NZ: 'NZD', JP: 'JPY', CN: 'CNY' },
  ...{ KR: 'KRW', IN: 'INR', BR: 'BRL', MX: 'MXN', AR: 'ARS', CL: 'CLP', ZA: 'ZAR', IL: 'ILS', TH: 'THB' },
  ...{ ID: 'IDR', MY: 'MYR', PH: 'PHP', SG: 'SGD', VN: 'VND', TW: 'TWD', HK: 'HKD' },
};

/** The currency prices of a language's region are in. @example currencyOf('en-US') // 'USD' */
export const currencyOf = (language: string): string => currencies[regionOf(language)] ?? 'EUR';
