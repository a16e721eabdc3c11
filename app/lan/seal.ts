/** Letters between paired devices: sealed with a key the server never sees (AES-GCM, 256 bits; NIST SP 800-38D). */

const VERSION = 1;
const IV_BYTES = 12;

const toBase64Url = (bytes: Uint8Array): string =>
  btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replace(/=+$/, '');

const fromBase64Url = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(text.replaceAll('-', '+').replaceAll('_', '/')), (c) => c.charCodeAt(0));

/** A fresh key, as it goes into a pairing code. */
export const newKey = (): string => toBase64Url(crypto.getRandomValues(new Uint8Array(32)));

/** Whether a text is a key. */
export const isKey = (text: string): boolean => /^[\w-]{43}$/.test(text);

const imported = (key: string) =>
  crypto.subtle.importKey('raw', fromBase64Url(key), 'AES-GCM', false, ['encrypt', 'decrypt']);

/** Who wrote to whom is bound into the seal: a letter can't be turned round or given to another. */
const addressed = (from: string, to: string) =>
  new TextEncoder().encode(`palazzo letter ${VERSION} ${from} ${to}`);

/** Seals a letter from one device to another. */
export async function seal(
  key: string,
  from: string,
  to: string,
  content: Uint8Array,
): Promise<Uint8Array<ArrayBuffer>> {
  const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES));
  const sealed = await crypto.subtle.encrypt(
    { name: 'AES-GCM', iv, additionalData: addressed(from, to) },
    await imported(key),
    content as Uint8Array<ArrayBuffer>,
  );
  const letter = new Uint8Array(1 + IV_BYTES + sealed.byteLength);
  letter[0] = VERSION;
  letter.set(iv, 1);
  letter.set(new Uint8Array(sealed), 1 + IV_BYTES);
  return letter;
}

/** Opens a letter. @returns null where it wasn't sealed with this key, between these two, or was changed on its way */
export async function unseal(
  key: string,
  from: string,
  to: string,
  letter: Uint8Array,
): Promise<Uint8Array | null> {
  if (letter[0] !== VERSION || letter.length <= 1 + IV_BYTES) return null;
  try {
    const content = await crypto.subtle.decrypt(
      {
        name: 'AES-GCM',
        iv: letter.slice(1, 1 + IV_BYTES),
        additionalData: addressed(from, to),
      },
      await imported(key),
      letter.slice(1 + IV_BYTES),
    );
    return new Uint8Array(content);
  } catch {
    return null;
  }
}
