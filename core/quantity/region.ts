/** How figures and days are written: by region, whatever the language of the words. */
export const figureRegions = {
  plain: { name: '12.5 · 2026-11-27', locale: null },
  'en-GB': { name: '12.5 · 27 Nov 2026', locale: 'en-GB' },
  'en-US': { name: '12.5 · Nov 27, 2026', locale: 'en-US' },
  'de-CH': { name: '12.5 · 27.11.2026', locale: 'de-CH' },
  'de-DE': { name: '12,5 · 27.11.2026', locale: 'de-DE' },
  'fr-FR': { name: '12,5 · 27/11/2026', locale: 'fr-FR' },
  'sv-SE': { name: '12,5 · 2026-11-27', locale: 'sv-SE' },
} as const;

export type FigureRegion = keyof typeof figureRegions;
export const figureRegionIds = Object.keys(figureRegions) as [FigureRegion, ...FigureRegion[]];

/** Degrees a temperature is written and typed in; the log has °C. */
export type TemperatureUnit = '°C' | '°F';

let current: FigureRegion = 'plain';
/** null: as the region of the figures has it */
let degrees: TemperatureUnit | null = null;

/** The degrees a temperature is written in now. */
export const temperatureUnit = (): TemperatureUnit => degrees ?? (current === 'en-US' ? '°F' : '°C');

/** Sets the degrees temperatures are written in from now on. */
export function setTemperatureUnit(unit: TemperatureUnit): void {
  degrees = unit;
}

/** How figures are written now. */
export const figuresNow = (): FigureRegion => current;

/** Sets how figures are written from now on: the app does it once, by the user's region. */
export function setFigures(region: FigureRegion): void {
  current = region;
}

/**
 * Makes something with figures as another region writes them; back to the former way whatever happens.
 * @example inFigures('de-DE', () => formatFigure(12.5, 1)) // '12,5'
 */
export function inFigures<T>(region: FigureRegion, make: () => T): T {
  const before = [current, degrees] as const;
  [current, degrees] = [region, null];
  try {
    return make();
  } finally {
    [current, degrees] = before;
  }
}

const commaIn = new Set<FigureRegion>(['de-DE', 'fr-FR', 'sv-SE']);

/** The mark decimals begin with where figures are written so. */
export const decimalMark = (): '.' | ',' => (commaIn.has(current) ? ',' : '.');

/** A figure written with a point, as the region writes it. @example withMark('0.05') // '0.05', '0,05' with a comma */
export const withMark = (figure: string): string =>
  commaIn.has(current) ? figure.replace('.', ',') : figure;

/** The locale money is written in. */
export const moneyLocale = (): string => figureRegions[current].locale ?? 'en';

/**
 * A calendar day as the region writes it.
 * @param day YYYY-MM-DD; anything else stays as it is
 * @example inFigures('en-GB', () => formatDay('2026-11-27')) // '27 Nov 2026'
 */
export function formatDay(day: string): string {
  const { locale } = figureRegions[current];
  const at = /^\d{4}-\d{2}-\d{2}$/.test(day) && locale ? new Date(`${day}T00:00:00Z`) : null;
  if (!at || !locale || Number.isNaN(at.getTime())) return day;
  return new Intl.DateTimeFormat(locale, {
    timeZone: 'UTC',
    year: 'numeric',
    month: locale.startsWith('en') ? 'short' : '2-digit',
    day: locale.startsWith('en') ? 'numeric' : '2-digit',
  }).format(at);
}
