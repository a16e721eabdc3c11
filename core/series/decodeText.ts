import { strFromU8 } from 'fflate';

const isUtf8 = (bytes: Uint8Array): boolean => {
  for (let i = 0; i < bytes.length; i++) {
    const b = bytes[i]!;
    if (b < 0x80) continue;
    const more = b >= 0xc2 && b < 0xe0 ? 1 : b >= 0xe0 && b < 0xf0 ? 2 : b >= 0xf0 && b < 0xf5 ? 3 : -1;
    if (more < 0 || i + more >= bytes.length) return false;
    for (let k = 1; k <= more; k++) if ((bytes[i + k]! & 0xc0) !== 0x80) return false;
    i += more;
  }
  return true;
};

function utf16(bytes: Uint8Array, from: number, bigEndian: boolean): string {
  const parts: string[] = [];
  const units = new Uint16Array(8192);
  let n = 0;
  for (let i = from; i + 1 < bytes.length; i += 2) {
    units[n++] = bigEndian ? bytes[i]! * 256 + bytes[i + 1]! : bytes[i + 1]! * 256 + bytes[i]!;
    if (n === units.length || i + 3 >= bytes.length) {
      parts.push(String.fromCharCode(...units.subarray(0, n)));
      n = 0;
    }
  }
  return parts.join('');
}

/**
 * The text of a file whose encoding nobody says: UTF-8 or UTF-16 by its byte-order mark, UTF-16 by its zeros, else UTF-8
 * where the bytes are that, else Latin-1 (“°” as one byte).
 * @example decodeText(Uint8Array.of(0xb0, 0x43)) // '°C'
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return utf16(bytes, 2, false);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return utf16(bytes, 2, true);
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return strFromU8(bytes.subarray(3));
  const head = bytes.subarray(0, 400);
  const zeros = (odd: number) => head.filter((b, i) => i % 2 === odd && b === 0).length;
  if (zeros(1) > head.length / 4) return utf16(bytes, 0, false);
  if (zeros(0) > head.length / 4) return utf16(bytes, 0, true);
  return strFromU8(bytes, !isUtf8(bytes));
}
