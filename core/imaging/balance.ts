import type { Pixels, Point } from './canopy';

/** What each channel is multiplied by: red, green, blue. */
export type Gains = readonly [red: number, green: number, blue: number];

/** Radius of the patch that is looked at, as a share of the picture's width. */
const PATCH = 0.012;
/** A patch darker or brighter than this tells nothing of the light's colour (practice). */
const DARKEST = 25;
const BRIGHTEST = 250;
/** A grey card isn't more coloured than this under any lamp people grow with (practice). */
const MOST_GAIN = 4;

export type BalanceError = 'tooDark' | 'tooBright' | 'notGrey';
export const balanceErrors: Record<BalanceError, string> = {
  tooDark: 'Too dark there to tell the colour of the light: tap a lighter part of the card.',
  tooBright: 'Burnt out there: tap a part of the card that isn’t pure white.',
  notGrey: 'That is coloured, not a grey or white card.',
};

/**
 * The gains that make a tapped patch of a grey or white card neutral, keeping its brightness: the von Kries rule on
 * the stored sRGB values (von Kries 1902, in the form used for white balance: common practice).
 *
 * @param at centre of the patch, in pixels
 * @example balanceOf(picture, { x: 20, y: 20 }) // patch of 180, 150, 120 → [0.83, 1, 1.25]
 */
export function balanceOf({ width, height, data }: Pixels, at: Point): Gains | BalanceError {
  const radius = Math.max(1, Math.round(width * PATCH));
  const sums = [0, 0, 0];
  let n = 0;
  for (let y = Math.max(0, Math.floor(at.y) - radius); y <= Math.min(height - 1, at.y + radius); y++) {
    for (let x = Math.max(0, Math.floor(at.x) - radius); x <= Math.min(width - 1, at.x + radius); x++) {
      if ((x - at.x) ** 2 + (y - at.y) ** 2 > radius ** 2) continue;
      const p = (y * width + x) * 4;
      for (let c = 0; c < 3; c++) sums[c]! += data[p + c]!;
      n += 1;
    }
  }
  const means = sums.map((s) => s / n);
  if (Math.max(...means) < DARKEST) return 'tooDark';
  if (Math.max(...means) > BRIGHTEST && Math.min(...means) > BRIGHTEST - 20) return 'tooBright';
  const grey = (means[0]! + means[1]! + means[2]!) / 3;
  const gains = means.map((m) => grey / Math.max(1, m));
  if (Math.max(...gains) > MOST_GAIN) return 'notGrey';
  return [gains[0]!, gains[1]!, gains[2]!];
}

/** Applies gains to a picture, in place. */
export function balance({ data }: Pixels, gains: Gains): void {
  // A table for each channel: twelve megapixels in a few milliseconds.
  const [r, g, b] = gains.map((gain) =>
    Uint8ClampedArray.from({ length: 256 }, (_, v) => Math.round(v * gain)),
  ) as [Uint8ClampedArray, Uint8ClampedArray, Uint8ClampedArray];
  for (let p = 0; p < data.length; p += 4) {
    data[p] = r[data[p]!]!;
    data[p + 1] = g[data[p + 1]!]!;
    data[p + 2] = b[data[p + 2]!]!;
  }
}
