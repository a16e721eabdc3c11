// Excess green: Woebbecke et al. 1995. Otsu 1979. Dark green colour index: Karcher and Richardson 2003.
// Pictures are made here with a known cover.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../stats/random';
import { type Pixels, areaOfPixel, chooseThreshold, excessGreen, measureCanopy, otsu } from './canopy';

type Colour = readonly [number, number, number];
const soil: Colour = [120, 100, 80];
const leaf: Colour = [70, 140, 50];

/** A picture with this share of leaves, noise of this standard deviation, and light falling off to one side. */
function made(
  share: number,
  { noise = 0, shade = 0, ground = soil, plant = leaf, width = 300, height = 200, seed = 1 } = {},
): Pixels & { truth: number } {
  const chance = seededRandom(seed);
  const data = new Uint8ClampedArray(width * height * 4);
  const wanted = Math.round(share * width * height);
  for (let i = 0; i < width * height; i++) {
    const light = 1 - shade * ((i % width) / width);
    (i < wanted ? plant : ground).forEach((c, k) => {
      data[i * 4 + k] = c * light + noise * chance.normal();
    });
    data[i * 4 + 3] = 255;
  }
  return { width, height, data, truth: (100 * wanted) / (width * height) };
}

describe('excess green', () => {
  it('is 2g − r − b of the shares of a colour', () => {
    // r 0.3, g 0.6, b 0.1: 1.2 − 0.3 − 0.1
    expect(excessGreen(60, 120, 20)).toBeCloseTo(0.8, 12);
    expect(excessGreen(90, 90, 90)).toBeCloseTo(0, 12);
    expect(excessGreen(0, 0, 0)).toBeNull();
  });
});

describe('Otsu’s threshold', () => {
  it('falls in the middle of the gap between two classes', () => {
    const h = new Uint32Array(101);
    h[20] = 500;
    h[80] = 500;
    expect(otsu(h)).toMatchObject({ at: 49, low: 20, high: 80, between: expect.closeTo(1, 9) });
    expect(otsu(Uint32Array.of(0, 7, 0))).toBeNull();
  });
  it('is the cut with the least variance left within the classes', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(50), { minLength: 3, maxLength: 20 }), (counts) => {
        const cut = otsu(Uint32Array.from(counts));
        const within = (k: number) =>
          [counts.slice(0, k + 1), counts.slice(k + 1)].reduce((s, part, side) => {
            const at = (i: number) => i + side * (k + 1);
            const n = part.reduce((a, b) => a + b, 0);
            if (n === 0) return s;
            const mean = part.reduce((a, c, i) => a + c * at(i), 0) / n;
            return s + part.reduce((a, c, i) => a + c * (at(i) - mean) ** 2, 0);
          }, 0);
        if (!cut) return;
        const best = Math.min(...counts.map((_, k) => within(k)));
        expect(within(cut.at)).toBeLessThanOrEqual(best + 1e-6 * (1 + best));
      }),
    );
  });
});

describe('cover', () => {
  it.each([0.05, 0.1, 0.31, 0.5, 0.75, 0.95])('of %s is found, even and shaded, clean and noisy', (share) => {
    for (const noise of [0, 3, 8, 12]) {
      // where colours are darkened to two fifths, a noise of 8 is as far as a camera goes
      for (const shade of noise > 8 ? [0] : [0, 0.6]) {
        const picture = made(share, { noise, shade });
        const off = Math.abs(measureCanopy(picture).coverPercent - picture.truth);
        expect(off, `noise ${noise}, shade ${shade}`).toBeLessThan(noise > 8 ? 1.2 : 1);
      }
    }
  });
  it.each([0, 0.002, 0.01, 0.02, 0.99, 1])('of %s isn’t split by noise', (share) => {
    for (const noise of [0, 1, 4, 8, 12]) {
      const picture = made(share, { noise, seed: 7 });
      const off = Math.abs(measureCanopy(picture).coverPercent - picture.truth);
      expect(off, `noise ${noise}`).toBeLessThan(1);
    }
  });
  it('bare ground of two colours, or of an even spread, isn’t half covered', () => {
    const two = made(0.5, { ground: [110, 96, 80], plant: [90, 92, 85], noise: 3 });
    expect(measureCanopy(two).coverPercent).toBeLessThan(1);
    expect(measureCanopy(made(0, { noise: 15 })).coverPercent).toBeLessThan(1);
  });
  it('black pixels are ground', () => {
    const picture = made(0.5);
    picture.data.fill(0, 0, 100 * 300 * 4);
    expect(measureCanopy(picture)).toMatchObject({ coverPercent: 0, darkGreenColourIndex: null });
  });
  it('says which rule gave the threshold; one moved by hand is used as it is', () => {
    expect(measureCanopy(made(0.4, { noise: 4 })).rule).toBe('otsu');
    expect(measureCanopy(made(0, { noise: 4 })).rule).toBe('mostlyGround');
    expect(measureCanopy(made(1, { noise: 4 })).rule).toBe('mostlyPlant');
    expect(measureCanopy(made(0.4), { threshold: 2 })).toMatchObject({ rule: 'byHand', coverPercent: 0 });
    expect(chooseThreshold(new Uint32Array(3073)).rule).toBe('mostlyGround');
  });
  it('of a region counts its pixels alone', () => {
    const picture = made(0.5); // the upper half of 300 × 200
    const upper = [
      { x: 10, y: 10 },
      { x: 110, y: 10 },
      { x: 110, y: 60 },
      { x: 10, y: 60 },
    ];
    const across = upper.map((p) => (p.y === 60 ? { ...p, y: 150 } : p));
    expect(measureCanopy(picture, { region: upper, threshold: 0.2 })).toMatchObject({
      pixels: 5000,
      coverPercent: 100,
    });
    const half = measureCanopy(picture, { region: across, mask: true });
    expect(half.pixels).toBe(14_000);
    expect(half.coverPercent).toBeCloseTo((100 * 90) / 140, 6);
    expect(half.mask!.filter((m) => m !== 2)).toHaveLength(14_000);
  });
});

describe('greenness', () => {
  it('is the dark green colour index of one colour', () => {
    // RGB 0, 128, 0: hue 120, saturation 1, brightness 128/255: [1 + 0 + 0.498]/3
    const green = made(1, { plant: [0, 128, 0] });
    expect(measureCanopy(green).darkGreenColourIndex).toBeCloseTo((1 + 0 + (1 - 128 / 255)) / 3, 9);
    // the hue isn’t clamped: 40, 200, 180 is at 172.5
    const bluish = measureCanopy(made(1, { plant: [40, 200, 180] }), { threshold: 0 });
    expect(bluish.darkGreenColourIndex).toBeCloseTo(
      ((172.5 - 60) / 60 + (1 - 160 / 200) + (1 - 200 / 255)) / 3,
      9,
    );
  });
  it('yellow leaves count as pale, brown ground as brown', () => {
    expect(measureCanopy(made(1, { plant: [150, 170, 40] })).palePercent).toBe(100);
    expect(measureCanopy(made(1)).palePercent).toBe(0);
    expect(measureCanopy(made(0)).brownPercent).toBe(100);
    expect(measureCanopy(made(0, { ground: [90, 90, 90] })).brownPercent).toBe(0);
  });
});

it('a pixel’s area comes from two points', () => {
  expect(areaOfPixel({ x: 0, y: 0 }, { x: 30, y: 40 }, 10)).toBeCloseTo(0.04, 12);
  expect(areaOfPixel({ x: 1, y: 1 }, { x: 1, y: 1 }, 10)).toBeNull();
});
