import fc from 'fast-check';
import { expect, it } from 'vitest';
import { letterDisplay } from './letters';

it('share a letter exactly when they don’t differ, for any pattern of differences', () => {
  const pattern = fc
    .integer({ min: 2, max: 8 })
    .chain((k) => fc.tuple(fc.constant(k), fc.array(fc.boolean(), { minLength: k * k, maxLength: k * k })));
  fc.assert(
    fc.property(pattern, ([k, flags]) => {
      const differs = (a: number, b: number) => flags[Math.min(a, b) * k + Math.max(a, b)]!;
      const letters = letterDisplay([...Array(k).keys()], differs);
      for (let a = 0; a < k; a++) {
        expect(letters[a]).not.toBe('');
        for (let b = a + 1; b < k; b++) {
          expect([...letters[a]!].some((l) => letters[b]!.includes(l))).toBe(!differs(a, b));
        }
      }
    }),
  );
});

it('gives a to the largest mean', () => {
  expect(letterDisplay([2, 0, 1], (a, b) => a === 2 || b === 2)).toEqual(['b', 'b', 'a']);
});
