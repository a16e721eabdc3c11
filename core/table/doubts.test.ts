import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { doubtsOf } from './doubts';
import type { Reading } from './understood';

const trait = { name: 'Yield', unit: 'g', kind: 'number' as const };
const reading = (value: number | null, i: number): Reading => ({
  ...{ row: i + 2, treatment: i % 2 ? 'A' : 'B', unit: null, block: null, column: null, crop: null },
  ...{ sample: null, day: null, trait: 0, value },
});
const of = (values: (number | null)[], kind: 'number' | 'count' = 'number') =>
  doubtsOf({ traits: [{ ...trait, kind }], readings: values.map(reading) });

describe('figures that are asked about', () => {
  it('asks about a decimal place that was lost, by its row and what the others are', () => {
    expect(of([41.2, 38.9, 44, 458, 47.5, 49.1])).toEqual([
      { row: 5, text: 'row 5: 458 g, where the others lie between 38.9 and 49.1. A slip?' },
    ]);
    expect(of([412, 389, 440, 4.3, 475, 491]).map((d) => d.row)).toEqual([5]);
    expect(of([41, 39, 44, -160, 47, 49])[0]!.row).toBe(5);
  });
  it('asks nothing of few values, of counts, of what is alike, or of a wide spread', () => {
    expect(of([41, 39, 44, 458])).toEqual([]);
    expect(of([4, 3, 4, 90, 5, 4], 'count')).toEqual([]);
    expect(of([5, 5, 5, 5, 5, 5])).toEqual([]);
    expect(of([1, 10, 100, 30, 3, 200])).toEqual([]);
    expect(of([41, 39, null, 44, 43, 42])).toEqual([]);
  });
  it('never asks about a figure within the range of the others', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 5, maxLength: 30 }),
        (values) => {
          for (const { row } of of(values)) {
            const value = values[row - 2]!;
            const others = values.filter((_, i) => i !== row - 2);
            expect(value < Math.min(...others) || value > Math.max(...others)).toBe(true);
          }
        },
      ),
    );
  });
});
