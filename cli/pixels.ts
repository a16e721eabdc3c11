import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import type { Pixels } from '~core/imaging/canopy';

/** More than any camera has; a picture that claims more is broken. */
const MOST_MEGAPIXELS = 200;

/**
 * The pixels of a picture, PNG or JPEG by what it begins with.
 * @returns null for another kind of file
 * @throws what the decoder says of a damaged one
 */
export function pixelsOf(bytes: Uint8Array): Pixels | null {
  if (bytes[0] === 0x89 && bytes[1] === 0x50) {
    const { width, height, data } = PNG.sync.read(Buffer.from(bytes));
    return { width, height, data };
  }
  if (bytes[0] === 0xff && bytes[1] === 0xd8)
    return jpeg.decode(bytes, {
      useTArray: true,
      formatAsRGBA: true,
      maxResolutionInMP: MOST_MEGAPIXELS,
      maxMemoryUsageInMB: 4096,
    });
  return null;
}

/** A picture as JPEG. */
export const jpegOf = ({ width, height, data }: Pixels): Uint8Array =>
  jpeg.encode({ width, height, data: Buffer.from(data) }, 88).data;
