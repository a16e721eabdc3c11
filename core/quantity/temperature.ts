import { numberIn } from './number';
import { formatFigure, formatSigned } from './format';
import { temperatureUnit } from './region';

// Fahrenheit from Celsius and back: NIST SP 811, appendix B.8.

/** Celsius from a figure with its unit. @example celsius(77, '°F') // 25 */
export const celsius = (value: number, unit: string | null): number =>
  unit === '°F' ? ((value - 32) * 5) / 9 : value;

/**
 * A temperature of the log as it is written here.
 * @param celsius °C
 * @example inFigures('en-US', () => temperatureShown(25)) // 77
 */
export const temperatureShown = (celsius: number): number =>
  temperatureUnit() === '°F' ? celsius * 1.8 + 32 : celsius;

/**
 * A difference of two temperatures as it is written here.
 * @param kelvin the difference in °C
 * @example inFigures('en-US', () => warmthShown(10)) // 18
 */
export const warmthShown = (kelvin: number): number => (temperatureUnit() === '°F' ? kelvin * 1.8 : kelvin);

/**
 * A temperature with its unit. @param celsius °C
 * @example temperatureText(21.44, 1) // '21.4 °C', '70.6 °F' where degrees are Fahrenheit
 */
export const temperatureText = (celsius: number, decimals: number): string =>
  `${formatFigure(temperatureShown(celsius), decimals)} ${temperatureUnit()}`;

/** A change of temperature with its sign, as it is written here. @param kelvin the change in °C */
export const warmthText = (kelvin: number, decimals: number): string =>
  formatSigned(warmthShown(kelvin), decimals);

/**
 * A temperature as a person types it, in °C: a bare figure is in the degrees that are written here; C or F behind it
 * says otherwise.
 *
 * @returns null where it isn't a figure
 * @example parseTemperature('77 °F') // 25
 */
export function parseTemperature(text: string): number | null {
  const typed = /^(.*?)\s*(?:°|deg)?\s*([CF])?$/i.exec(text.trim());
  const value = typed ? numberIn(typed[1]!) : null;
  if (value === null) return null;
  const letter = typed![2]?.toUpperCase() ?? temperatureUnit().at(-1);
  return letter === 'F' ? Number(celsius(value, '°F').toFixed(2)) : value;
}

/** What stands below a field that takes temperatures, for those who have the other degrees at hand. */
export const otherDegrees = (): string =>
  temperatureUnit() === '°F' ? 'or with a C: 21 C' : 'or with an F: 70 F';
