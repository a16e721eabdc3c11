import { knownUnit } from './words';

/** A heading without its unit. @example splitUnit('weight (g)') // { name: 'weight', unit: 'g' } */
export function splitUnit(heading: string): { name: string; unit: string } {
  // (1–9) is a scale and (2026) a year, no unit.
  const bracket = /^(.*\S)\s*[([]\s*([^()[\]\d][^()[\]]{0,15})\s*[)\]]$/.exec(heading);
  if (bracket) return { name: bracket[1]!, unit: bracket[2]!.trim() };
  const comma = /^(.*\S),\s*(\S{1,10})$/.exec(heading);
  if (comma && knownUnit.test(comma[2]!)) return { name: comma[1]!, unit: comma[2]! };
  const word = /^(.*\S)\s+(\S+)$/.exec(heading);
  return word && knownUnit.test(word[2]!) ? { name: word[1]!, unit: word[2]! } : { name: heading, unit: '' };
}

/** A name as it is spoken, without the marks programs put between words. */
export const spoken = (name: string) => name.replaceAll(/[_.]+/g, ' ').trim();

/** The day a heading or a cell names. @example dayNamed('week 2') // 14 */
export function dayNamed(text: string): number | null {
  const t = text.trim();
  if (/^\d{1,4}$/.test(t)) return Number(t);
  const word = /^(?:.*[ ._-])?(day|days|d|dap|das|week|wk|w)[ ._-]?(\d{1,4})$/i.exec(t);
  if (word) return /^w/i.test(word[1]!) ? 7 * Number(word[2]) : Number(word[2]);
  return null;
}
/** Days since 1970 of a column's dates; null where they aren't dates, or day and month can't be told apart. */
export function datesOf(levels: readonly string[]): Map<string, number> | null {
  const parts = levels.map((l) => /^(\d{1,4})([-./])(\d{1,2})\2(\d{1,4})/.exec(l.trim()));
  if (levels.length === 0 || parts.some((p) => p === null)) return null;
  const [first, second] = [1, 3].map((i) => parts.map((p) => Number(p![i])));
  const years = first!.every((n) => n > 31);
  const dayFirst = parts.every((p) => p![2] === '.') || first!.some((n) => n > 12);
  if (!years && !dayFirst && second!.every((n) => n <= 12)) return null;
  const days = parts.map((p) => {
    const [a, b, c] = [p![1], p![3], p![4]].map(Number) as [number, number, number];
    const [y, m, d] = years ? [a, b, c] : dayFirst ? [c, b, a] : [c, a, b];
    return m < 1 || m > 12 || d < 1 || d > 31
      ? Number.NaN
      : Date.UTC(y < 100 ? 2000 + y : y, m - 1, d) / 86_400_000;
  });
  return days.some(Number.isNaN) ? null : new Map(levels.map((l, i) => [l, days[i]!]));
}

/** Whether all of a column, or a heading, are days or dates. */
export const isDays = (levels: readonly string[]) =>
  levels.every((l) => dayNamed(l) !== null) || datesOf(levels) !== null;

/** What all day columns measure, as far as their headings say. @example 'height day 7' → 'height' */
export const commonName = (names: readonly string[]): string => {
  const bare = names.map((n) =>
    n.replace(/[ ._-]*(day|days|d|dap|das|week|wk|w)?[ ._-]?\d{1,4}$/i, '').trim(),
  );
  return bare[0] !== '' && bare.every((b) => b === bare[0]) ? bare[0]! : 'value';
};
