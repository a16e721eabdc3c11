import { expose, transfer } from 'comlink';
import exifr from 'exifr';
import jsQR from 'jsqr';
import { fitsMemory } from '~core/imaging/pictureSize';
import { type BalanceError, type Gains, balance, balanceOf } from '~core/imaging/balance';
import { type Canopy, type Point, measureCanopy } from '~core/imaging/canopy';

/** A picture made ready to be kept: upright, without anything a camera wrote into it. */
export interface PreparedPhoto {
  full: Uint8Array;
  thumb: Uint8Array;
  width: number;
  height: number;
  /** when it was taken, by the camera; null: it doesn't say */
  takenAt: string | null;
  /** text of a QR code in it */
  code: string | null;
}

/** Longest sides, in pixels. */
const MOST = 4096;
const THUMB = 480;
const QR_SIDE = 1200;

async function scaled(
  bitmap: ImageBitmap,
  most: number,
): Promise<{ canvas: OffscreenCanvas; width: number; height: number }> {
  const by = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [
    Math.max(1, Math.round(bitmap.width * by)),
    Math.max(1, Math.round(bitmap.height * by)),
  ];
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, width, height);
  return { canvas, width, height };
}

const jpegOf = async (canvas: OffscreenCanvas, quality: number) =>
  new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg', quality })).arrayBuffer());

/** The text of a QR code in a picture, looked for at two sizes. */
async function codeIn(bitmap: ImageBitmap): Promise<string | null> {
  for (const side of [QR_SIDE, QR_SIDE / 2]) {
    const { canvas, width, height } = await scaled(bitmap, side);
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
    const code = jsQR(data, width, height);
    if (code) return code.data;
  }
  return null;
}

export interface CoverOptions {
  /** outline in shares of width and height; null: all of the picture */
  region: readonly Point[] | null;
  threshold: number | null;
  mask: boolean;
  /** by the grey card in it; null: as taken */
  gains: Gains | null;
}

const api = {
  prepare: async (bytes: Uint8Array<ArrayBuffer>): Promise<PreparedPhoto> => {
    const meta = (await exifr
      .parse(bytes, { pick: ['DateTimeOriginal', 'CreateDate'] })
      .catch(() => undefined)) as { DateTimeOriginal?: Date; CreateDate?: Date } | undefined;
    const takenAt = meta?.DateTimeOriginal ?? meta?.CreateDate;
    if (!fitsMemory(bytes)) throw new Error('It says it has more pixels than any camera takes.');
    const bitmap = await createImageBitmap(new Blob([bytes]), { imageOrientation: 'from-image' });
    const { canvas, width, height } = await scaled(bitmap, MOST);
    // Drawn anew: orientation is in the pixels, and nothing else that a camera wrote is left.
    const full = await jpegOf(canvas, 0.92);
    const thumb = await jpegOf((await scaled(bitmap, THUMB)).canvas, 0.8);
    const code = await codeIn(bitmap);
    bitmap.close();
    const answer: PreparedPhoto = {
      ...{ full, thumb, width, height, code },
      takenAt: takenAt instanceof Date && !Number.isNaN(takenAt.getTime()) ? takenAt.toISOString() : null,
    };
    return transfer(answer, [full.buffer as ArrayBuffer, thumb.buffer as ArrayBuffer]);
  },
  /** The gains that make a tapped patch neutral, or what is wrong with it. @param at in shares of width and height */
  balance: async (bytes: Uint8Array<ArrayBuffer>, at: Point): Promise<Gains | BalanceError> => {
    const bitmap = await createImageBitmap(new Blob([bytes]));
    const { canvas, width, height } = await scaled(bitmap, QR_SIDE);
    bitmap.close();
    const pixels = canvas.getContext('2d')!.getImageData(0, 0, width, height);
    return balanceOf(pixels, { x: at.x * width, y: at.y * height });
  },
  /** A QR code in a frame of the live picture. */
  readCode: (data: Uint8ClampedArray, width: number, height: number): string | null =>
    jsQR(data, width, height, { inversionAttempts: 'dontInvert' })?.data ?? null,
  /** Cover of a kept picture, and on demand its mask as a picture: plants at half strength. */
  cover: async (
    bytes: Uint8Array<ArrayBuffer>,
    { region, threshold, mask: wanted, gains }: CoverOptions,
  ): Promise<Canopy & { overlay: Uint8Array | null; width: number; height: number }> => {
    const bitmap = await createImageBitmap(new Blob([bytes]));
    const { width, height } = bitmap;
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0);
    bitmap.close();
    const pixels = context.getImageData(0, 0, width, height);
    if (gains) balance(pixels, gains);
    const { mask, ...canopy } = measureCanopy(pixels, {
      region: region?.map((p) => ({ x: p.x * width, y: p.y * height })) ?? null,
      threshold,
      mask: wanted,
    });
    let overlay: Uint8Array | null = null;
    if (mask) {
      for (let i = 0; i < mask.length; i++) {
        const p = i * 4;
        const plant = mask[i] === 1;
        pixels.data[p] = 47;
        pixels.data[p + 1] = plant ? 200 : 40;
        pixels.data[p + 2] = plant ? 160 : 30;
        pixels.data[p + 3] = plant ? 140 : mask[i] === 2 ? 150 : 0;
      }
      context.putImageData(pixels, 0, 0);
      overlay = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer());
    }
    return { ...canopy, overlay, width, height };
  },
};

export type PhotosApi = typeof api;
expose(api);
