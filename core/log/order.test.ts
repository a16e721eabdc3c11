import fc from 'fast-check';
import { expect, it } from 'vitest';
import { compareHappened, compareWritten, insertionIndex, sortedIndexOf } from './order';

const line = (at: string, id: string, counter = 0, device = 'd') => ({
  at,
  id: id as never,
  counter,
  device,
});

it('what happened is ordered by moment, whatever the offset it is written with', () => {
  const items = [
    line('2026-03-11T10:00:00+02:00', 'b'),
    line('2026-03-11T09:00:00.000Z', 'c'),
    line('2026-03-11T08:00:00.000Z', 'bb'),
    line('2026-03-10T23:00:00-08:00', 'a'),
  ];
  expect([...items].sort(compareHappened).map((i) => i.id)).toEqual(['a', 'b', 'bb', 'c']);
});

it('what was written is ordered by counter, then device, then id: never by the clock on the wall', () => {
  const items = [
    line('2030-01-01T00:00:00.000Z', 'x', 1, 'fast clock'),
    line('2026-03-11T08:00:00.000Z', 'y', 2),
    line('2026-03-11T07:00:00.000Z', 'z', 2, 'a'),
  ];
  expect([...items].sort(compareWritten).map((i) => i.id)).toEqual(['x', 'z', 'y']);
});

const anyLine = fc.record({
  at: fc
    .tuple(fc.integer({ min: 0, max: 5 }), fc.constantFrom('.000Z', 'Z', '+00:00'))
    .map(([s, end]) => `2026-03-11T09:00:0${s}${end}`),
  id: fc.string({ minLength: 1, maxLength: 2 }).map((s) => s as never),
  counter: fc.nat(4),
  device: fc.constantFrom('a', 'b'),
});

it('both give the same order for any arrival', () => {
  fc.assert(
    fc.property(fc.uniqueArray(anyLine, { selector: (i) => i.id }), (items) => {
      for (const compare of [compareHappened, compareWritten]) {
        expect([...items].reverse().sort(compare)).toEqual([...items].sort(compare));
      }
    }),
  );
});

it('items are put into a sorted list, and found there again', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(20)), fc.nat(20), (numbers, x) => {
      const sorted = [...numbers].sort((a, b) => a - b);
      const at = insertionIndex(sorted, x, (a, b) => a - b);
      expect(sorted.slice(0, at).every((n) => n <= x)).toBe(true);
      expect(sorted.slice(at).every((n) => n > x)).toBe(true);
      const found = sortedIndexOf(sorted, x, (a, b) => a - b);
      expect(found < 0 ? undefined : sorted[found]).toBe(numbers.includes(x) ? x : undefined);
    }),
  );
});
