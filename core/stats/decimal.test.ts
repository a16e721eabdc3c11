import fc from 'fast-check';
import { expect, it } from 'vitest';
import { centre, decimalDifference } from './decimal';

it('takes off an offset without touching the last digit', () => {
  expect(decimalDifference(1000000000000.4, 1000000000000)).toBe(0.4);
  expect(decimalDifference(1e-7, -2.5e21)).toBe(2.5e21);
  expect(decimalDifference(0.3, 0.1)).toBe(0.2);
});

it('agrees with integers for numbers of two decimals', () => {
  const cents = fc.integer({ min: -1e9, max: 1e9 });
  fc.assert(
    fc.property(cents, cents, (a, b) => {
      expect(decimalDifference(a / 100, b / 100)).toBe((a - b) / 100);
    }),
  );
});

it('centres on the first value', () => {
  expect(centre([5, 7, 4])).toEqual({ origin: 5, centred: [0, 2, -1] });
  expect(centre([1e9 + 0.1, 1e9 + 0.2]).centred).toEqual([0, 0.1]);
  expect(centre([])).toEqual({ origin: 0, centred: [] });
});
