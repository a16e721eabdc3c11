/**
 * A value on a pad between its first figure and its Enter. An Enter is for one unit: what was questioned is confirmed only
 * untouched; figures typed anew after a question are another value, which may be meant for the next unit, and is asked about
 * before it is kept in this one.
 */
export interface Asking {
  /** as the keys were pressed */
  text: string;
  /** the question this very text was asked; null: none yet */
  asked: string | null;
  /** what stood here, was questioned, and was typed over */
  instead: string | null;
}

export const nothingAsked: Asking = { text: '', asked: null, instead: null };

/** Other figures. @param corrected by taking figures off again: that is the same value put right */
export const typedOver = (a: Asking, text: string, corrected = false): Asking =>
  text === a.text
    ? a
    : { text, asked: null, instead: a.asked !== null && !corrected ? (a.instead ?? a.text) : a.instead };

/**
 * What is asked before it is kept; null where nothing is.
 * @param doubt what is odd about the value itself
 * @param unit whose pad it is
 */
export function questionOf({ text, instead }: Asking, doubt: string | null, unit: string): string | null {
  const anew =
    instead === null || instead === text
      ? null
      : `“${instead}” was asked about and isn’t kept: is “${text}” for ${unit}?`;
  return [anew, doubt].filter((q) => q !== null).join(' ') || null;
}

/** Enter, or the button: keeps what has no question or was asked it, else asks. */
export const entered = (a: Asking, question: string | null): { keep: boolean; next: Asking } =>
  question === null || a.asked === question
    ? { keep: true, next: nothingAsked }
    : { keep: false, next: { ...a, asked: question } };
