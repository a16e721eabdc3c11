import { seededRandom } from '../stats/random';
import type { Pixels } from './canopy';

/** A container of plants as a camera above it would see it. */
interface Scene {
  width: number;
  height: number;
  /** share of the ground that leaves are laid over until it is covered, 0–1 */
  cover: number;
  /** colour of the leaves */
  leaf: readonly [number, number, number];
  ground: readonly [number, number, number];
  seed: number;
}

/**
 * Draws ground and leaves until the wanted share of pixels is leaf: the simulated camera, and pictures with a known
 * cover for tests.
 * @returns the picture, and the share of its pixels that are leaf
 */
export function drawPlants({ width, height, cover, leaf, ground, seed }: Scene): Pixels & { truth: number } {
  const chance = seededRandom(seed);
  const data = new Uint8ClampedArray(width * height * 4);
  const isLeaf = new Uint8Array(width * height);
  // Grains two pixels wide, as soil has them.
  let light = 1;
  for (let i = 0; i < width * height; i++) {
    if (i % 2 === 0) light = 0.88 + 0.24 * chance.uniform();
    for (let k = 0; k < 3; k++) data[i * 4 + k] = ground[k]! * light;
    data[i * 4 + 3] = 255;
  }
  const wanted = Math.round(cover * width * height);
  let leaves = 0;
  for (let tries = 0; leaves < wanted && tries < 20_000; tries++) {
    const [cx, cy] = [chance.uniform() * width, chance.uniform() * height];
    const [a, b] = [width * (0.018 + 0.022 * chance.uniform()), width * (0.012 + 0.012 * chance.uniform())];
    const turn = chance.uniform() * Math.PI;
    const light = 0.8 + 0.4 * chance.uniform();
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    const reach = Math.ceil(Math.max(a, b));
    // No lists in here: it is run for every pixel of every leaf.
    for (let y = Math.max(0, Math.floor(cy - reach)); y < Math.min(height, cy + reach); y++) {
      for (let x = Math.max(0, Math.floor(cx - reach)); x < Math.min(width, cx + reach); x++) {
        const dx = x - cx;
        const dy = y - cy;
        const u = (dx * cos + dy * sin) / a;
        const v = (dy * cos - dx * sin) / b;
        const r = u * u + v * v;
        if (r > 1) continue;
        const i = y * width + x;
        if (isLeaf[i] === 0) {
          if (leaves >= wanted) continue;
          leaves += 1;
          isLeaf[i] = 1;
        }
        // a little darker at the rim, so that leaves stand off from each other
        const shade = light * (1.05 - 0.25 * r);
        data[i * 4] = leaf[0] * shade;
        data[i * 4 + 1] = leaf[1] * shade;
        data[i * 4 + 2] = leaf[2] * shade;
      }
    }
  }
  return { width, height, data, truth: leaves / (width * height) };
}
