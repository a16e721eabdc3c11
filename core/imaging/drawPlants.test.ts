import { expect, it } from 'vitest';
import { measureCanopy } from './canopy';
import { drawPlants } from './drawPlants';

const scene = { width: 240, height: 180, leaf: [86, 148, 62], ground: [94, 74, 58], seed: 3 } as const;

it.each([0, 0.01, 0.1, 0.35, 0.7, 0.95])(
  'a drawn cover of %s is what is measured, within one per cent',
  (cover) => {
    const picture = drawPlants({ ...scene, cover });
    expect(picture.truth).toBeCloseTo(cover, 2);
    expect(Math.abs(measureCanopy(picture).coverPercent - 100 * picture.truth)).toBeLessThan(1);
  },
);
it('the same seed draws the same picture', () => {
  expect(drawPlants({ ...scene, cover: 0.3 })).toEqual(drawPlants({ ...scene, cover: 0.3 }));
});
