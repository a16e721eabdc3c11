/** So many random bytes in hexadecimal digits. Works on pages without a secure context too. */
export const randomHex = (bytes: number): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(bytes)), (b) => b.toString(16).padStart(2, '0')).join('');

/** A whole number nobody can repeat, 32 bits. */
export const randomSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0]!;
