import type { Unit } from '../model/plan';

const plain = (text: string) => text.toUpperCase().replace(/[^A-Z0-9]+/g, '-');

/** Codes as they are looked for, by the list they stand in: a column asks for each of its cells. */
const codesOf = new WeakMap<readonly Pick<Unit, 'code'>[], readonly string[]>();

function codesIn(units: readonly Pick<Unit, 'code'>[]): readonly string[] {
  let codes = codesOf.get(units);
  if (codes?.length !== units.length) {
    codes = units.map((u) => `-${plain(u.code)}-`);
    codesOf.set(units, codes);
  }
  return codes;
}

/**
 * The unit a text is about: the code on its label as it is, or in a file's name, however it is set off. A code that is
 * the beginning of a longer one (PAR-1 in PAR-10) isn't taken for it.
 *
 * @param units aren't changed afterwards: their codes are kept by the list
 * @returns undefined where none, or more than one, is named
 * @example unitNamedIn(units, 'IMG_2041 par-07.jpg')?.code // 'PAR-07'
 */
export function unitNamedIn<U extends Pick<Unit, 'code'>>(units: readonly U[], text: string): U | undefined {
  const padded = `-${plain(text)}-`;
  const codes = codesIn(units);
  const matching = units.filter((_, i) => padded.includes(codes[i]!));
  return matching.length === 1 ? matching[0] : undefined;
}
