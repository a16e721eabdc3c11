import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { discriminationTest } from './discriminationTest';
import { servingOrder } from './servingOrder';

/** n over k, by hand. */
const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k);

describe('tests of telling apart', () => {
  // Re-derived from the binomial with p = 1/3; 5 of 6, 8 of 12, 13 of 24, 15 of 30 are in ISO 4120 (trade.md).
  it.each([
    [6, 5],
    [12, 8],
    [24, 13],
    [30, 15],
  ])('triangle, 5 %%: of %i at least %i', (of, critical) => {
    expect(discriminationTest('triangle', critical, of).critical).toBe(critical);
    expect(discriminationTest('triangle', critical, of).p).toBeLessThanOrEqual(0.05);
    expect(discriminationTest('triangle', critical - 1, of).p).toBeGreaterThan(0.05);
  });
  // From memory: ISO 10399, 5 %: 9 of 10, 15 of 20; ISO 5495 two-sided, 5 %: 9 of 10, 15 of 20.
  it('duo-trio and pairs', () => {
    expect(discriminationTest('duo-trio', 0, 10).critical).toBe(9);
    expect(discriminationTest('duo-trio', 0, 20).critical).toBe(15);
    expect(discriminationTest('pairs', 0, 10).critical).toBe(9);
    expect(discriminationTest('pairs', 0, 20).critical).toBe(15);
  });
  it('the tails are those of the binomial summed by hand', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 25 }), fc.nat(25), (of, r) => {
        const right = Math.min(r, of);
        const tail = (from: number, to: number, q: number) => {
          let sum = 0;
          for (let k = from; k <= to; k++) sum += choose(of, k) * q ** k * (1 - q) ** (of - k);
          return sum;
        };
        expect(discriminationTest('triangle', right, of).p).toBeCloseTo(tail(right, of, 1 / 3), 12);
        const two = Math.min(1, 2 * Math.min(tail(right, of, 0.5), tail(0, right, 0.5)));
        expect(discriminationTest('pairs', right, of).p).toBeCloseTo(two, 12);
      }),
    );
  });
  it('no number is enough where even all right can be luck; what can’t be throws', () => {
    expect(discriminationTest('triangle', 2, 2).critical).toBeNull();
    expect(discriminationTest('pairs', 5, 5).critical).toBeNull();
    for (const [k, n] of [
      [7, 6],
      [-1, 6],
      [1.5, 6],
      [0, 0],
    ] as const)
      expect(() => discriminationTest('triangle', k, n)).toThrow(RangeError);
  });
});

const letters = 'ABCDEFGHIJKL';
const served = (p: number, tasters: number, seed: number) => {
  const order = servingOrder([...letters.slice(0, p)], tasters, seed);
  if (!order.ok) throw new Error(order.error.tag);
  return order.value;
};
const spreadOf = (counts: Iterable<number>) => {
  const all = [...counts];
  return Math.max(...all) - Math.min(...all);
};
const tally = (p: number, servings: ReturnType<typeof served>) => {
  const places = new Map<string, number>();
  const neighbours = new Map<string, number>();
  for (const a of letters.slice(0, p)) {
    for (let k = 0; k < p; k++) places.set(`${a}${k}`, 0);
    for (const b of letters.slice(0, p)) if (a !== b) neighbours.set(a + b, 0);
  }
  for (const { serve } of servings) {
    serve.forEach(({ sample }, k) => {
      places.set(`${sample}${k}`, places.get(`${sample}${k}`)! + 1);
      const next = serve[k + 1]?.sample;
      if (next) neighbours.set(sample + next, neighbours.get(sample + next)! + 1);
    });
  }
  return { places: spreadOf(places.values()), neighbours: spreadOf(neighbours.values()) };
};

describe('the order of serving', () => {
  it.each([2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])(
    'of %i samples is balanced for whole designs: every place, every pair of neighbours alike',
    (p) => {
      const whole = p % 2 === 0 ? p : 2 * p;
      for (const times of [1, 2]) {
        expect(tally(p, served(p, times * whole, p))).toEqual({ places: 0, neighbours: 0 });
      }
    },
  );
  it('for any number of tasters places differ by one at most, each gets every sample, codes are all different', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 12 }),
        fc.integer({ min: 1, max: 30 }),
        fc.nat(1000),
        (p, tasters, seed) => {
          const servings = served(p, tasters, seed);
          expect(tally(p, servings).places).toBeLessThanOrEqual(1);
          expect(tally(p, servings).neighbours).toBeLessThanOrEqual(2);
          const codes = servings.flatMap((s) => s.serve.map((x) => x.code));
          expect(new Set(codes).size).toBe(p * tasters);
          expect(codes.every((c) => /^[1-9]\d\d$/.test(c))).toBe(true);
          for (const { serve } of servings)
            expect(
              serve
                .map((s) => s.sample)
                .sort()
                .join(''),
            ).toBe(letters.slice(0, p));
        },
      ),
      { numRuns: 60 },
    );
  });
  it('the same seed gives the same, another another', () => {
    expect(served(4, 8, 1)).toEqual(served(4, 8, 1));
    expect(served(4, 8, 1)).not.toEqual(served(4, 8, 2));
  });
  it('refuses what can’t be served', () => {
    const tag = (samples: string[], tasters: number) => {
      const o = servingOrder(samples, tasters, 1);
      return o.ok ? 'ok' : o.error.tag;
    };
    expect(tag(['A'], 3)).toBe('fewSamples');
    expect(tag(['A', 'A'], 3)).toBe('sameSample');
    expect(tag(['A', 'B'], 0)).toBe('noTasters');
    expect(tag(['A', 'B'], 451)).toBe('noCodes');
  });
});
