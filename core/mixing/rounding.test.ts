import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roundToStep, smallestBatch } from './rounding';

describe('rounding to a tool’s step', () => {
  it('2.4 g on a whole-gram scale is 2 g: −16.7 %', () => {
    expect(roundToStep(2.4, 1)).toMatchObject({ measured: 2, errorPercent: expect.closeTo(-100 / 6, 9) });
  });
  it.each([
    [0.3, 0.1, 0.3],
    [0.4, 1, 0],
    [0.5, 1, 1],
    [4.37, 0.25, 4.25],
    [12, null, 12],
  ])('%d in steps of %s is %d', (wanted, step, measured) => {
    expect(roundToStep(wanted, step).measured).toBe(measured);
  });
  it('is never off by more than half a step', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-3, max: 1e4, noNaN: true }),
        fc.constantFrom(0.01, 0.1, 0.5, 1, 2.5, 5),
        (wanted, step) => {
          const r = roundToStep(wanted, step);
          expect(Math.abs(r.measured - wanted)).toBeLessThanOrEqual(step / 2 + 1e-9);
          expect(r.measured / step).toBeCloseTo(Math.round(r.measured / step), 6);
        },
      ),
    );
  });
});

describe('the smallest batch', () => {
  it('for 12 g / 5 gal on whole grams: three grams, 4.7 L', () => {
    // 3 g at 0.634 g/L are exact at 4.73 L and 2 % too much at 4.64 L
    expect(smallestBatch([{ perL: 12 / 18.92705892, step: 1 }], 3.785)).toBe(4.7);
  });
  it('is the volume itself when nothing is wrong', () => {
    expect(smallestBatch([{ perL: 1, step: 1 }], 5)).toBe(5);
    expect(smallestBatch([{ perL: 1.234, step: null }], 5)).toBe(5);
    expect(smallestBatch([], 5)).toBe(5);
  });
  it('none when the vessel is too small', () => {
    expect(smallestBatch([{ perL: 0.01, step: 1 }], 1, { mostL: 20 })).toBeNull();
  });
  it('brings every amount within the limit, and hardly anything smaller does', () => {
    const amount = fc.record({
      perL: fc.double({ min: 0.05, max: 5, noNaN: true }),
      step: fc.constantFrom(0.1, 0.5, 1),
    });
    fc.assert(
      fc.property(
        fc.array(amount, { minLength: 1, maxLength: 3 }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        (amounts, from) => {
          const error = (litres: number) =>
            Math.max(...amounts.map((a) => Math.abs(roundToStep(a.perL * litres, a.step).errorPercent)));
          const litres = smallestBatch(amounts, from)!;
          expect(error(litres)).toBeLessThanOrEqual(2 + 1e-6);
          // searched on a fine grid: nothing good lies further below than the neat rounding takes
          for (let v = from; v < litres * 0.95; v += 0.003) expect(error(v)).toBeGreaterThan(2 - 1e-6);
        },
      ),
      { numRuns: 60 },
    );
  });
});
