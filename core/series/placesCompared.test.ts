import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { comparePlaces, hourlyMeans, isNight, thinned } from './placesCompared';

const HOUR = 3_600_000;
const start = Date.UTC(2026, 2, 1);
/** Readings every ten minutes of so many hours. */
const readings = (hours: number, value: (hour: number) => number, from = 0) => {
  const times = Float64Array.from({ length: hours * 6 }, (_, i) => start + from * HOUR + (i * HOUR) / 6);
  return { times, values: times.map((t) => value(((t - start) / HOUR) % 24)) };
};

describe('two places', () => {
  it('are held against each other hour by hour, day and night apart', () => {
    const below = readings(48, () => 20);
    const above = readings(48, (h) => (h >= 22 || h < 6 ? 21.8 : 20.3));
    const d = comparePlaces(above, below)!;
    expect(d.hours).toBe(48);
    expect(d.night).toBeCloseTo(1.8, 9);
    expect(d.day).toBeCloseTo(0.3, 9);
    expect(d.all).toBeCloseTo((16 * 1.8 + 32 * 0.3) / 48, 9);
  });
  it('count the hours both have alone', () => {
    const early = readings(10, () => 20);
    const late = readings(10, () => 22, 8);
    expect(comparePlaces(late, early)).toEqual({ hours: 2, all: 2, day: 2, night: null });
    expect(
      comparePlaces(
        early,
        readings(3, () => 1, 100),
      ),
    ).toBeNull();
  });
  it('night is from 22 to 6', () => {
    expect([21.9, 22, 3, 5.99, 6].map((h) => isNight(start + h * HOUR))).toEqual([
      false,
      true,
      true,
      true,
      false,
    ]);
  });
  it('an hour’s mean is that of its readings', () => {
    expect([...hourlyMeans(readings(2, (h) => h))].map(([, m]) => m)).toEqual([
      expect.closeTo(2.5 / 6, 9),
      expect.closeTo(1 + 2.5 / 6, 9),
    ]);
  });
});

it('a thinned series keeps its least and greatest reading, in order', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 1, maxLength: 500 }),
      (list) => {
        const values = Float64Array.from(list);
        const points = thinned({ times: Float64Array.from(list, (_, i) => i), values }, 20);
        expect(points.length).toBeLessThanOrEqual(40);
        expect(Math.max(...points.map((p) => p.y))).toBe(Math.max(...list));
        expect(Math.min(...points.map((p) => p.y))).toBe(Math.min(...list));
        expect(points.every((p, i) => i === 0 || points[i - 1]!.x < p.x)).toBe(true);
      },
    ),
  );
});
