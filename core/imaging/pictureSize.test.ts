import { encode } from 'fast-png';
import jpeg from 'jpeg-js';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { MOST_PIXELS, fitsMemory, pictureSize } from './pictureSize';

const png = (width: number, height: number) =>
  encode({ width, height, channels: 4, data: new Uint8Array(width * height * 4) });
const jpg = (width: number, height: number) =>
  new Uint8Array(jpeg.encode({ width, height, data: Buffer.alloc(width * height * 4) }, 50).data);

it('is what encoders of others wrote', () => {
  for (const [w, h] of [
    [1, 1],
    [37, 12],
    [300, 201],
  ] as const) {
    expect(pictureSize(png(w, h))).toEqual({ width: w, height: h });
    expect(pictureSize(jpg(w, h))).toEqual({ width: w, height: h });
  }
});
it('a head that claims too much isn’t opened', () => {
  const huge = png(4, 4);
  new DataView(huge.buffer, huge.byteOffset).setUint32(16, 60_000);
  new DataView(huge.buffer, huge.byteOffset).setUint32(20, 60_000);
  expect([fitsMemory(png(4, 4)), fitsMemory(huge)]).toEqual([true, false]);
  expect(MOST_PIXELS).toBeGreaterThan(108_000_000);
});
it('bytes of anything else are no picture, and end', () => {
  fc.assert(fc.property(fc.uint8Array({ maxLength: 600 }), (b) => void pictureSize(b)));
  expect(pictureSize(Uint8Array.from([0xff, 0xd8, 0xff, 0xff, 0xff]))).toBeNull();
  expect(pictureSize(jpg(30, 30).slice(0, 12))).toBeNull();
});
