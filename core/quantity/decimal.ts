/**
 * Reads a number as people write it: 12.5, 12,5, 1e3, −4. A comma is a decimal sign only where there is
 * one comma and no point; grouped thousands aren't guessed at.
 *
 * @returns the number, or null where the text isn't one
 * @example parseDecimal('12,5') // 12.5
 */
export function parseDecimal(text: string): number | null {
  const t = text.trim().replace('−', '-').replace(/^\+/, '');
  const normal = /^-?\d*,\d+$/.test(t) ? t.replace(',', '.') : t;
  if (!/^-?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(normal)) return null;
  const value = Number(normal);
  return Number.isFinite(value) ? value : null;
}
