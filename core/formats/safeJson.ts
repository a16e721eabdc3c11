import { type Result, err, ok } from '../model/result';

/** No file of this app nests deeper; deeper ones would break whatever walks them. */
export const MOST_DEEP = 64;

type JsonError = 'notJson' | 'tooDeep';

/** How deep brackets are nested, strings passed over; stops counting beyond `most`. */
function depthOf(text: string, most: number): number {
  let [depth, deepest] = [0, 0];
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 0x22) {
      for (i += 1; i < text.length && text.charCodeAt(i) !== 0x22; i++)
        if (text.charCodeAt(i) === 0x5c) i += 1;
    } else if (c === 0x5b || c === 0x7b) {
      depth += 1;
      if (depth > deepest) deepest = depth;
      if (deepest > most) return deepest;
    } else if (c === 0x5d || c === 0x7d) depth -= 1;
  }
  return deepest;
}

const LONE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** Half a character, which no file can hold, becomes the sign for one that can't be shown. */
function wellFormed(value: unknown): unknown {
  if (typeof value === 'string') return value.replace(LONE, '\uFFFD');
  if (Array.isArray(value)) return value.map(wellFormed);
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(
      Object.entries(value).map(([k, v]) => [k.replace(LONE, '\uFFFD'), wellFormed(v)]),
    );
  return value;
}

/**
 * Reads JSON that may come from anywhere: nested no deeper than any real file, and without halves of characters.
 * @example safeJson('[1]') // ok([1])
 */
export function safeJson(text: string): Result<unknown, JsonError> {
  if (depthOf(text, MOST_DEEP) > MOST_DEEP) return err('tooDeep');
  try {
    const value: unknown = JSON.parse(text);
    return ok(/\\u[dD][89a-fA-F]/.test(text) ? wellFormed(value) : value);
  } catch {
    return err('notJson');
  }
}
