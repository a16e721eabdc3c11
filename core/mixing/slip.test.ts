import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { farFromWanted } from './slip';

describe('an amount against what was wanted', () => {
  it.each([
    [44, 4.4, '10 times as much'],
    [0.44, 4.4, '10 % of it'],
    [5.6, 4.4, '1.3 times as much'],
    [3.2, 4.4, '73 % of it'],
    [0, 4.4, 'nothing of it'],
  ])('%d for %d is said: %s', (given, wanted, said) => {
    expect(farFromWanted(given, wanted)).toBe(said);
  });

  it.each([
    [4.4, 4.4],
    [5.5, 4.4], // a quarter, to the figure
    [3.3, 4.4],
    [3, 0],
  ])('%d for %d is not', (given, wanted) => {
    expect(farFromWanted(given, wanted)).toBeNull();
  });

  it('hangs on the ratio alone, whatever the unit', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 1, max: 900 }), (given, wanted) => {
        expect(farFromWanted(given * 8, wanted * 8)).toBe(farFromWanted(given, wanted));
      }),
    );
  });

  it('has a narrower limit where one is asked for', () => {
    expect(farFromWanted(4.9, 4.4, 10)).toBe('1.1 times as much');
    expect(farFromWanted(4.8, 4.4, 10)).toBeNull();
  });
});
