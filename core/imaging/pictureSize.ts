/** A picture with more pixels than this isn't opened: 12,000 × 12,000, thrice the largest phone's. */
export const MOST_PIXELS = 144_000_000;

const u16 = (b: Uint8Array, at: number) => (b[at]! << 8) | b[at + 1]!;
const u32 = (b: Uint8Array, at: number) => u16(b, at) * 65_536 + u16(b, at + 2);

/**
 * Width and height that a JPEG or PNG says it has, read off its head: a few kilobytes may claim to be gigabytes of pixels.
 *
 * @returns null where the bytes are neither, or are cut off before they say so
 * @source JPEG: ITU-T T.81, B.2.2 (frame header); PNG: W3C PNG (third edition), 11.2.1 (IHDR)
 */
export function pictureSize(bytes: Uint8Array): { width: number; height: number } | null {
  if (bytes.length >= 24 && u32(bytes, 0) === 0x89504e47 && u32(bytes, 12) === 0x49484452)
    return { width: u32(bytes, 16), height: u32(bytes, 20) };
  if (bytes.length < 4 || u16(bytes, 0) !== 0xffd8) return null;
  for (let at = 2; at + 9 < bytes.length;) {
    if (bytes[at] !== 0xff) return null;
    const marker = bytes[at + 1]!;
    if (marker === 0xff) {
      at += 1;
      continue;
    }
    // Frames, but for tables (C4), extensions (C8) and arithmetic coding (CC).
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc)
      return { width: u16(bytes, at + 7), height: u16(bytes, at + 5) };
    // The picture itself begins, or it ends, without a frame.
    if (marker === 0xda || marker === 0xd9) return null;
    at += 2 + u16(bytes, at + 2);
  }
  return null;
}

/** Whether a picture may be opened: what doesn't say its size is left to whoever opens it. */
export function fitsMemory(bytes: Uint8Array): boolean {
  const size = pictureSize(bytes);
  return size === null || size.width * size.height <= MOST_PIXELS;
}
