// Packings of 2 to 7 circles follow from triangles; the others are from memory. Seed arithmetic: trade practice.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Opening,
  TEMPLATE_AREA,
  crowding,
  howManyFit,
  leastDistance,
  sowingFor,
  stations,
  templateSheets,
} from './stations';

const round = (cm: number): Opening => ({ shape: 'round', widthCm: cm, depthCm: cm });
const box = (w: number, d: number): Opening => ({ shape: 'rectangle', widthCm: w, depthCm: d });

describe('how many fit', () => {
  it.each([
    [1, 1],
    [2, 2],
    // three circles: 1 + 2/√3; four: 1 + √2; five: 1 + 1/sin 36°; six and seven: 3
    [3, 1 + 2 / Math.sqrt(3)],
    [4, 1 + Math.SQRT2],
    [5, 1 + 1 / Math.sin(Math.PI / 5)],
    [7, 3],
  ])('%s in a round pot of %s plant widths, one fewer in a smaller one', (n, ratio) => {
    expect(howManyFit(round(10 * ratio + 0.01), 10)).toBe(n);
    expect(howManyFit(round(10 * ratio - 0.05), 10)).toBeLessThan(n);
  });
  it('in a tray straight or staggered, whichever holds more', () => {
    expect(howManyFit(box(30, 20), 10)).toBe(6);
    // 8 rows of 17.32 − … staggered: 4 × 10 + 4 × 9 against 7 × 10
    expect(howManyFit(box(100, 71), 10)).toBe(76);
    expect(howManyFit(box(9, 9), 10)).toBe(0);
    expect(howManyFit(box(9, 9), 0)).toBe(0);
  });
  it('covers a share of the ground', () => {
    expect(crowding(box(20, 20), 4, 10)).toBeCloseTo(Math.PI / 4, 9);
    expect(crowding(round(10), 1, 10)).toBeCloseTo(1, 9);
  });
});

describe('stations', () => {
  it('are as many as asked, inside, and apart from each other', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.boolean(),
        fc.integer({ min: 10, max: 80 }),
        (n, isRound, w) => {
          const opening = isRound ? round(w) : box(w, 30);
          const list = stations(opening, n);
          expect(list).toHaveLength(n);
          for (const { x, y } of list) {
            expect(x >= 0 && x <= opening.widthCm && y >= 0 && y <= opening.depthCm).toBe(true);
            if (isRound) expect(Math.hypot(x - w / 2, y - w / 2)).toBeLessThanOrEqual(w / 2);
          }
          // at least half of what an even share of the ground would give
          const even = Math.sqrt(((isRound ? Math.PI / 4 : 1) * w * opening.depthCm) / n);
          expect(leastDistance(list)).toBeGreaterThan(0.45 * even * Math.min(1, 30 / w, w / 30));
        },
      ),
    );
  });
  it('fill whole rows first', () => {
    expect(stations(box(20, 10), 2)).toEqual([
      { x: 5, y: 5 },
      { x: 15, y: 5 },
    ]);
    expect(stations(box(20, 20), 4)).toHaveLength(4);
    expect(stations(box(20, 20), 0)).toEqual([]);
  });
});

describe('sowing', () => {
  it('makes up for seed that doesn’t come, and for what isn’t seed', () => {
    expect(sowingFor(20, { germinationPercent: 80, purityPercent: 100, thousandSeedG: 2.5 })).toEqual({
      seeds: 25,
      weightG: 0.0625,
    });
    expect(
      sowingFor(20, { germinationPercent: 80, purityPercent: 50, thousandSeedG: 2.5 }).weightG,
    ).toBeCloseTo(0.125, 9);
    expect(sowingFor(7, { germinationPercent: 100, purityPercent: 100, thousandSeedG: null })).toEqual({
      seeds: 7,
      weightG: null,
    });
  });
});

it('a template’s sheets cover the opening with an overlap', () => {
  fc.assert(
    fc.property(fc.integer({ min: 5, max: 120 }), fc.integer({ min: 5, max: 120 }), (w, d) => {
      const sheets = templateSheets(box(w, d));
      const right = Math.max(...sheets.map((s) => s.xMm)) + TEMPLATE_AREA.widthMm;
      const front = Math.max(...sheets.map((s) => s.yMm)) + TEMPLATE_AREA.heightMm;
      expect(right).toBeGreaterThanOrEqual(w * 10);
      expect(front).toBeGreaterThanOrEqual(d * 10);
    }),
  );
  expect(templateSheets(round(15))).toHaveLength(1);
  expect(templateSheets(box(27, 27))).toHaveLength(4);
});
