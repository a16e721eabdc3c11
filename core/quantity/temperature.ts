import { parseDecimal } from './decimal';

/**
 * A temperature as a person types it, in °C: a bare figure is in °C, one with F behind it in °F.
 *
 * @returns null where it isn't a figure
 * @example parseTemperature('77 °F') // 25
 */
export function parseTemperature(text: string): number | null {
  const typed = /^(.*?)\s*(?:°|deg)?\s*([CF])?$/i.exec(text.trim());
  const value = typed ? parseDecimal(typed[1]!) : null;
  if (value === null) return null;
  return typed![2]?.toUpperCase() === 'F' ? Number((((value - 32) * 5) / 9).toFixed(2)) : value;
}
