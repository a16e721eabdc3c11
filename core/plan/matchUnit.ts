import type { Unit } from '../model/plan';

const plain = (text: string) => text.toUpperCase().replace(/[^A-Z0-9]+/g, '-');

/**
 * The unit a text is about: the code on its label as it is, or in a file's name, however it is set off. A code that is
 * the beginning of a longer one (PAR-1 in PAR-10) isn't taken for it.
 *
 * @returns undefined where none, or more than one, is named
 * @example unitNamedIn(units, 'IMG_2041 par-07.jpg')?.code // 'PAR-07'
 */
export function unitNamedIn<U extends Pick<Unit, 'code'>>(units: readonly U[], text: string): U | undefined {
  const padded = `-${plain(text)}-`;
  const found = units.filter((u) => padded.includes(`-${plain(u.code)}-`));
  return found.length === 1 ? found[0] : undefined;
}
