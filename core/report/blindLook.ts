import { seededRandom } from '../stats/random';
import type { SheetRow } from './contactSheet';

/** A photo a reader judges before knowing whose it is. */
interface BlindPhoto {
  code: string;
  name: string;
  /** of its picture */
  sha256: string;
}

/** What a page needs for a blind look: pictures by code in a drawn order, and the day they were taken on. */
export interface BlindLook {
  day: number;
  photos: BlindPhoto[];
}

/**
 * A blind look at the last day on which contenders were photographed side by side: three-digit codes, none starting with
 * another's digits, in an order drawn by the trial's own seed, so that a page made again has the same codes.
 *
 * @returns null where no day has photos of two contenders
 */
export function blindLook(rows: readonly SheetRow[], seed: number): BlindLook | null {
  const last = rows.at(-1);
  if (!last) return null;
  const random = seededRandom(seed);
  const codes = new Set<number>();
  while (codes.size < last.cells.length) codes.add(100 + Math.floor(random.uniform() * 900));
  const drawn = last.cells
    .map((cell) => ({ cell, at: random.uniform() }))
    .sort((a, b) => a.at - b.at)
    .map(({ cell }, i) => ({ code: String([...codes][i]), name: cell.name, sha256: cell.sha256 }));
  return { day: last.day, photos: drawn };
}

/**
 * The part of a page on which a reader picks by eye and then opens the key. It needs no script: choices are radio
 * buttons, the key is a closed element.
 *
 * @param sourceOf a data URI for each photo; those without are left out
 */
export function blindLookHtml(
  { day, photos }: BlindLook,
  sourceOf: (sha256: string) => string,
  escaped: (text: string) => string,
): string {
  const withSource = photos.filter((p) => sourceOf(p.sha256) !== '');
  if (withSource.length < 2) return '';
  const pictures = withSource
    .map(
      (p) =>
        `<label><img src="${escaped(sourceOf(p.sha256))}" alt="Photo ${p.code}"><span><input type="radio" name="look" value="${p.code}"> ${p.code}</span></label>`,
    )
    .join('');
  const key = withSource.map((p) => `<li>${p.code}: ${escaped(p.name)}</li>`).join('');
  return `<section class="look"><h2>Look first</h2><p>One of each, on day ${day}. Pick the one you would take before you open the key.</p><fieldset><legend>Photos by code</legend>${pictures}</fieldset><details><summary>Open the key</summary><ul>${key}</ul></details></section>`;
}
