import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { balance, balanceOf } from './balance';
import { measureCanopy } from './canopy';
import { drawPlants } from './drawPlants';

const plain = (rgb: readonly [number, number, number], side = 60) => {
  const data = new Uint8ClampedArray(side * side * 4);
  for (let p = 0; p < data.length; p += 4) data.set([...rgb, 255], p);
  return { width: side, height: side, data };
};

describe('colour balance by a grey card', () => {
  it('makes the patch neutral and keeps its brightness', () => {
    const picture = plain([180, 150, 120]);
    const gains = balanceOf(picture, { x: 30, y: 30 });
    if (typeof gains === 'string') throw new Error(gains);
    // by hand: mean 150; 150/180, 150/150, 150/120
    expect(gains.map((g) => Number(g.toFixed(4)))).toEqual([0.8333, 1, 1.25]);
    balance(picture, gains);
    expect([...picture.data.slice(0, 4)]).toEqual([150, 150, 150, 255]);
  });
  it('says what can’t be a grey card', () => {
    expect(balanceOf(plain([10, 12, 9]), { x: 5, y: 5 })).toBe('tooDark');
    expect(balanceOf(plain([255, 254, 255]), { x: 5, y: 5 })).toBe('tooBright');
    expect(balanceOf(plain([200, 10, 10]), { x: 5, y: 5 })).toBe('notGrey');
  });
  it('is undone by the light it was worked out from: whatever the lamp, a grey patch comes out grey', () => {
    const channel = fc.integer({ min: 60, max: 240 });
    fc.assert(
      fc.property(channel, channel, channel, (r, g, b) => {
        const picture = plain([r, g, b], 10);
        const gains = balanceOf(picture, { x: 0, y: 0 });
        if (typeof gains === 'string') return;
        balance(picture, gains);
        const [x, y, z] = picture.data;
        expect(Math.max(x!, y!, z!) - Math.min(x!, y!, z!)).toBeLessThanOrEqual(1);
      }),
    );
  });
  it('brings the dark green index of a picture under a purple lamp back to that of daylight', () => {
    const scene = {
      width: 160,
      height: 120,
      cover: 0.5,
      leaf: [70, 120, 60] as const,
      ground: [94, 74, 58] as const,
      seed: 4,
    };
    const day = drawPlants(scene);
    const lamp = drawPlants(scene);
    // A lamp weak in green, and a grey card (128) in the corner.
    const tint = [1.2, 0.75, 1.3] as const;
    for (const picture of [day, lamp]) {
      for (let y = 0; y < 12; y++)
        for (let x = 0; x < 12; x++) picture.data.set([128, 128, 128, 255], (y * 160 + x) * 4);
    }
    balance(lamp, tint);
    const index = (p: typeof day) => measureCanopy(p).darkGreenColourIndex!;
    const wrong = index(lamp);
    const gains = balanceOf(lamp, { x: 5, y: 5 });
    if (typeof gains === 'string') throw new Error(gains);
    balance(lamp, gains);
    expect(Math.abs(index(lamp) - index(day))).toBeLessThan(0.02);
    expect(Math.abs(wrong - index(day))).toBeGreaterThan(0.05);
  });
});
