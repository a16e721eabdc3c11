/** Letters of a short code: without I, L, O and U, which are misread (Crockford's base 32, from memory). */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

/**
 * A SHA-256 as a code that can be said and posted: its first 80 bits, which nobody finds another plan for.
 * @example shortCode('00'.repeat(32)) // '0000-0000-0000-0000'
 */
export function shortCode(hash: string): string {
  const bits = BigInt(`0x${hash.slice(0, 20)}`);
  const letters = Array.from({ length: 16 }, (_, i) => LETTERS[Number((bits >> BigInt(75 - 5 * i)) & 31n)]!);
  return letters.join('').replace(/(.{4})(?=.)/g, '$1-');
}

/** Whether a text is a hash or its short code, as it may be typed. */
export const isHashOf = (text: string, hash: string): boolean => {
  const plain = text.trim().toUpperCase().replaceAll(/[\s-]/g, '');
  return plain === hash.toUpperCase() || plain === shortCode(hash).replaceAll('-', '');
};
