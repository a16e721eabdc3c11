/** A picture as pixels: red, green, blue, opacity, a byte each, row by row from the top. */
export interface Pixels {
  width: number;
  height: number;
  /** 4 bytes a pixel */
  data: Uint8Array | Uint8ClampedArray;
}

export interface Point {
  x: number;
  y: number;
}

/** How the threshold came about. */
type ThresholdRule =
  /** Otsu's: the two classes separate */
  | 'otsu'
  /** nearly bare: Otsu would split the ground's noise */
  | 'mostlyGround'
  /** nearly full: Otsu would split the plants */
  | 'mostlyPlant'
  /** moved by hand */
  | 'byHand';

export interface Canopy {
  /** pixels looked at */
  pixels: number;
  plantPixels: number;
  coverPercent: number;
  /** Karcher and Richardson's index; null without plants */
  darkGreenColourIndex: number | null;
  /** of the plant pixels, those pale or yellowish rather than green, per cent; null without plants */
  palePercent: number | null;
  /** of all pixels looked at, those brown like dead leaves (or soil), per cent */
  brownPercent: number;
  /** excess green above which a pixel is plant */
  threshold: number;
  rule: ThresholdRule;
}

const BINS_PER_UNIT = 1024;
/** Excess green on chromatic coordinates lies between −1 and 2. */
const LOWEST = -1;
const BINS = 3 * BINS_PER_UNIT + 1;
const BLACK = 0xffff;
const worth = (bin: number) => bin / BINS_PER_UNIT + LOWEST;

/**
 * Excess green 2g − r − b on chromatic coordinates r = R/(R + G + B) (Woebbecke et al. 1995): shade changes it little.
 * @returns null for black, which has no colour
 * @example excessGreen(60, 120, 20) // 0.8
 */
export function excessGreen(red: number, green: number, blue: number): number | null {
  const sum = red + green + blue;
  return sum === 0 ? null : (3 * green) / sum - 1;
}

/**
 * Otsu's threshold (1979): the cut that sets the two classes furthest apart. Where a stretch of cuts does equally well
 * (no pixel lies between the classes), its middle.
 *
 * @param histogram pixels in each bin
 * @returns the cut after bin `at`, classes' means in bins, and the share of the variance that lies between them; null
 * with fewer than two bins filled
 */
export function otsu(
  histogram: Uint32Array,
): { at: number; low: number; high: number; between: number } | null {
  let total = 0;
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < histogram.length; i++) {
    total += histogram[i]!;
    sum += i * histogram[i]!;
    squares += i * i * histogram[i]!;
  }
  const variance = total === 0 ? 0 : squares / total - (sum / total) ** 2;
  if (variance <= 1e-9) return null;
  let [below, belowSum, best, first, last] = [0, 0, -1, 0, 0];
  for (let i = 0; i < histogram.length; i++) {
    below += histogram[i]!;
    belowSum += i * histogram[i]!;
    const above = total - below;
    if (below === 0) continue;
    if (above === 0) break;
    const between = (below * above * (belowSum / below - (sum - belowSum) / above) ** 2) / total ** 2;
    if (between > best * (1 + 1e-12)) [best, first, last] = [between, i, i];
    else if (between >= best * (1 - 1e-12)) last = i;
  }
  const at = Math.floor((first + last) / 2);
  let [lowCount, lowSum] = [0, 0];
  for (let i = 0; i <= at; i++) {
    lowCount += histogram[i]!;
    lowSum += i * histogram[i]!;
  }
  return { at, low: lowSum / lowCount, high: (sum - lowSum) / (total - lowCount), between: best / variance };
}

/** The classes separate when this share of the variance lies between them: an even spread has 0.75, a bell 0.64. */
const SEPARATE = 0.76;
/** … when their means are this far apart … */
const APART = 0.15;
/** … or, in a noisy picture, further apart with more between them than a bell has … */
const FAR_APART = 0.3;
const MORE_THAN_A_BELL = 0.66;
/** … and the upper one is green, the lower one not. */
const GREEN = 0.1;
const NOT_GREEN = 0.15;

const quantileOf = (histogram: Uint32Array, total: number, share: number): number => {
  let seen = 0;
  for (let i = 0; i < histogram.length; i++) {
    seen += histogram[i]!;
    if (seen >= share * total) return worth(i);
  }
  return worth(histogram.length - 1);
};

/** Share and mean of what lies above a cut. */
function above(histogram: Uint32Array, total: number, cut: number): { share: number; mean: number } {
  let [n, sum] = [0, 0];
  for (let i = 0; i < histogram.length; i++) {
    if (worth(i) <= cut || histogram[i] === 0) continue;
    n += histogram[i]!;
    sum += histogram[i]! * worth(i);
  }
  return { share: n / total, mean: n === 0 ? cut : sum / n };
}

/** One half of a bell's spread, from the median to the quantile one standard deviation off (0.1587). */
const ONE_SD = 0.1587;
const SEED_SD = 4;
const ROUNDS = 3;

/**
 * The excess green above which a pixel is plant. Otsu's, where the classes separate. Where they don't (nearly bare or
 * full), what there is most of is taken for one bell around its median: in nearly bare ground plants begin where they
 * become likelier than the ground's own noise, not below 0.1; in a nearly full picture ground begins below 0.1 or four
 * standard deviations under the plants. The limits are common practice, tried on made pictures.
 *
 * @example chooseThreshold(histogram).rule // 'otsu'
 */
export function chooseThreshold(histogram: Uint32Array): { threshold: number; rule: ThresholdRule } {
  const total = histogram.reduce((a, b) => a + b, 0);
  if (total === 0) return { threshold: GREEN, rule: 'mostlyGround' };
  const cut = otsu(histogram);
  if (cut) {
    const [low, high] = [worth(cut.low), worth(cut.high)];
    const apart = high - low;
    const clear =
      (cut.between >= SEPARATE && apart >= APART) || (cut.between >= MORE_THAN_A_BELL && apart >= FAR_APART);
    if (clear && high >= GREEN && low <= NOT_GREEN) {
      return { threshold: worth(cut.at + 0.5), rule: 'otsu' };
    }
  }
  const median = quantileOf(histogram, total, 0.5);
  if (median >= GREEN) {
    const sd = quantileOf(histogram, total, 1 - ONE_SD) - median;
    return { threshold: Math.min(GREEN, Math.max(0, median - SEED_SD * sd)), rule: 'mostlyPlant' };
  }
  const sd = Math.max(median - quantileOf(histogram, total, ONE_SD), 0.5 / BINS_PER_UNIT);
  const seed = Math.max(GREEN, median + SEED_SD * sd);
  let threshold = seed;
  for (let i = 0; i < ROUNDS; i++) {
    const { share, mean } = above(histogram, total, threshold);
    if (share === 0) break;
    const d = mean - median;
    // Where plants of this share become likelier than the ground: two bells of one spread.
    const even = (median + mean) / 2 + ((sd * sd) / d) * Math.log((1 - share) / share);
    threshold = Math.min(seed, Math.max(GREEN, even));
  }
  return { threshold, rule: 'mostlyGround' };
}

/** Whether a point lies inside a polygon (even-odd rule). */
function inside(x: number, y: number, polygon: readonly Point[]): boolean {
  let hit = false;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [a, b] = [polygon[i]!, polygon[j]!];
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) hit = !hit;
  }
  return hit;
}

/** For each row of pixels the stretches inside a polygon, as pairs of columns [from, to). */
function stretches(polygon: readonly Point[] | null, width: number, y: number): number[] {
  if (!polygon) return [0, width];
  const crossings = [0, width];
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [a, b] = [polygon[i]!, polygon[j]!];
    if (a.y > y + 0.5 === b.y > y + 0.5) continue;
    const x = ((b.x - a.x) * (y + 0.5 - a.y)) / (b.y - a.y) + a.x;
    crossings.push(Math.min(width, Math.max(0, Math.round(x))));
  }
  crossings.sort((p, q) => p - q);
  const edges: number[] = [];
  for (let k = 0; k + 1 < crossings.length; k++) {
    const [from, to] = [crossings[k]!, crossings[k + 1]!];
    if (to > from && inside((from + to) / 2, y + 0.5, polygon)) edges.push(from, to);
  }
  return edges;
}

interface CanopyOptions {
  /** region looked at, in pixels; null: all of it */
  region?: readonly Point[] | null;
  /** a threshold moved by hand; null: chosen */
  threshold?: number | null;
  /** also gives which pixels are plant */
  mask?: boolean;
}

/**
 * Canopy cover and greenness of a picture. Plant is what lies above a threshold of excess green; black pixels are
 * ground. Greenness is the dark green colour index of Karcher and Richardson (2003), the mean over plant pixels of
 * [(H − 60)/60 + (1 − S) + (1 − B)]/3 with hue in degrees, saturation and brightness from 0 to 1.
 *
 * @param pixels sRGB values as stored
 * @returns cover in per cent of the pixels looked at; with `mask` a byte a pixel: 1 plant, 0 ground, 2 outside
 * @example measureCanopy(picture).coverPercent // 31.2
 */
export function measureCanopy(
  { width, height, data }: Pixels,
  { region = null, threshold: byHand = null, mask: wanted = false }: CanopyOptions = {},
): Canopy & { mask: Uint8Array | null } {
  const bins = new Uint16Array(width * height);
  const histogram = new Uint32Array(BINS);
  const perSum = Float64Array.from({ length: 3 * 255 + 1 }, (_, sum) => (3 * BINS_PER_UNIT) / sum);
  let pixels = 0;
  const rows = Array.from({ length: height }, (_, y) => stretches(region, width, y));
  for (let y = 0; y < height; y++) {
    const row = rows[y]!;
    for (let s = 0; s < row.length; s += 2) {
      pixels += row[s + 1]! - row[s]!;
      for (let i = y * width + row[s]!, end = y * width + row[s + 1]!; i < end; i++) {
        const p = i * 4;
        const sum = data[p]! + data[p + 1]! + data[p + 2]!;
        if (sum === 0) {
          bins[i] = BLACK;
          continue;
        }
        // excess green is 3g − 1, and −1 is the lowest
        const bin = (data[p + 1]! * perSum[sum]! + 0.5) | 0;
        bins[i] = bin;
        histogram[bin]! += 1;
      }
    }
  }
  const { threshold, rule } =
    byHand === null ? chooseThreshold(histogram) : { threshold: byHand, rule: 'byHand' as const };
  const mask = wanted ? new Uint8Array(width * height).fill(2) : null;
  const cut = (threshold - LOWEST) * BINS_PER_UNIT;
  const isPlantBin = new Uint8Array(BLACK + 1);
  for (let bin = 0; bin < BINS; bin++) isPlantBin[bin] = bin > cut ? 1 : 0;
  // A division for each pixel costs more than a table of 256.
  const reciprocal = Float64Array.from({ length: 256 }, (_, i) => (i === 0 ? 0 : 1 / i));
  const sixtieth = reciprocal.map((x) => 60 * x);
  let plant = 0;
  let pale = 0;
  let brown = 0;
  let index = 0;
  for (let y = 0; y < height; y++) {
    const row = rows[y]!;
    for (let s = 0; s < row.length; s += 2) {
      for (let i = y * width + row[s]!, end = y * width + row[s + 1]!; i < end; i++) {
        const p = i * 4;
        const r = data[p]!;
        const g = data[p + 1]!;
        const b = data[p + 2]!;
        const isPlant = isPlantBin[bins[i]!] === 1;
        if (mask) mask[i] = isPlant ? 1 : 0;
        // Brown is red before green before blue: what isn't needs no hue.
        if (!isPlant && (r <= g || g <= b)) continue;
        const most = r > g ? (r > b ? r : b) : g > b ? g : b;
        const least = r < g ? (r < b ? r : b) : g < b ? g : b;
        const spread = most - least;
        const sixth = sixtieth[spread]!;
        const hue =
          most === g
            ? spread === 0
              ? 0
              : 120 + (b - r) * sixth
            : most === r
              ? (g - b) * sixth + (g < b ? 360 : 0)
              : 240 + (r - g) * sixth;
        if (isPlant) {
          plant += 1;
          const saturation = spread * reciprocal[most]!;
          index += (hue - 60) / 60 + (1 - saturation) + (1 - most / 255);
          if (hue < PALE_HUE || (saturation < PALE_SATURATION && most > PALE_BRIGHTNESS)) pale += 1;
        } else if (
          spread > 0 &&
          hue >= BROWN_HUE[0] &&
          hue <= BROWN_HUE[1] &&
          spread >= BROWN_SATURATION * most &&
          most >= BROWN_BRIGHTNESS
        ) {
          brown += 1;
        }
      }
    }
  }
  return {
    pixels,
    plantPixels: plant,
    coverPercent: pixels === 0 ? 0 : (100 * plant) / pixels,
    darkGreenColourIndex: plant === 0 ? null : index / plant / 3,
    palePercent: plant === 0 ? null : (100 * pale) / plant,
    brownPercent: pixels === 0 ? 0 : (100 * brown) / pixels,
    threshold,
    rule,
    mask,
  };
}

/** Yellowish or washed-out leaves, and brown (practice): hue in degrees, saturation 0–1, brightness 0–255. */
const PALE_HUE = 75;
const PALE_SATURATION = 0.2;
const PALE_BRIGHTNESS = 150;
const BROWN_HUE = [10, 45] as const;
const BROWN_SATURATION = 0.25;
const BROWN_BRIGHTNESS = 40;

/**
 * Square centimetres a pixel covers, from two points whose distance is known.
 * @param distanceCm between them on the ground; more than 0
 * @returns null where the points fall together
 * @example areaOfPixel({ x: 0, y: 0 }, { x: 100, y: 0 }, 10) // 0.01
 */
export function areaOfPixel(a: Point, b: Point, distanceCm: number): number | null {
  const pixels = Math.hypot(a.x - b.x, a.y - b.y);
  return pixels === 0 || !(distanceCm > 0) ? null : (distanceCm / pixels) ** 2;
}
