import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { farFromWanted, sayDoubts } from './slip';

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

describe('amounts typed for a batch', () => {
  const line = (wanted: number, measured: number, take: [number, number] | null = null) => ({
    ...{ name: 'Uno', unit: 'g' as const, wanted, measured },
    stock: take && { take: { wanted: take[0], measured: take[1] } },
  });
  it('are doubted where they are far off, each in a sentence', () => {
    const lines = [line(4.4, 4.5), line(2, 2), line(1, 1)];
    expect(sayDoubts(lines, [44, 2.1, 0])).toEqual([
      'Uno: 44 g for 4.4 g is 10 times as much.',
      'Uno: 0 g for 1 g is nothing of it.',
    ]);
  });
  it('aren’t where nothing is typed, or what the field itself refuses', () => {
    expect(sayDoubts([line(4.4, 4.5), line(4.4, 4.5)], [null, -4])).toEqual([]);
  });
  it('aren’t where the steps are so coarse: 2 g is what the recipe itself says for 1.4', () => {
    expect(sayDoubts([line(1.4, 2)], [2])).toEqual([]);
  });
  it('of a stock solution are held against what is taken of it', () => {
    expect(sayDoubts([line(0.1, 0.1, [10, 10])], [10])).toEqual([]);
    expect(sayDoubts([{ ...line(2, 2), unit: 'piece' }], [20])).toEqual([
      'Uno: 20 for 2 is 10 times as much.',
    ]);
    expect(sayDoubts([line(0.1, 0.1, [10, 10])], [0.1])).toEqual(['Uno: 0.1 mL for 10 mL is 1 % of it.']);
  });
});
