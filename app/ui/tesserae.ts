export { type TesseraStyle, tesseraStyle } from '~core/picture/tessera';

/** A, B, C … Z, AA … */
export { letterOf as tesseraLetter } from '~core/plan/letters';

/** The colour a CSS variable stands for now, for canvases. */
export function cssColour(variable: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(variable).trim() || '#2a241f';
}
