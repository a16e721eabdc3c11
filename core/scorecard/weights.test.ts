import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scorecard } from './scorecard';
import { pairsToAsk, weightsByPairs, weightsMap } from './weights';

describe('which matters more', () => {
  it('asks every pair once', () => {
    expect(pairsToAsk(['x', 'y', 'z'])).toEqual([
      { a: 'x', b: 'y' },
      { a: 'x', b: 'z' },
      { a: 'y', b: 'z' },
    ]);
    expect(pairsToAsk(['x'])).toEqual([]);
  });
  // By hand: three headings have a point each, three pairs two more each: of 9 points 5, 3, 1.
  it('yield before cost before looks: 56, 33 and 11 per cent', () => {
    const won = pairsToAsk(['yield', 'cost', 'looks']).map((p) => ({ ...p, more: 'a' as const }));
    expect([...weightsByPairs(['yield', 'cost', 'looks'], won)]).toEqual([
      ['yield', 56],
      ['cost', 33],
      ['looks', 11],
    ]);
  });
  it('nothing answered or all alike: the same for all', () => {
    const alike = pairsToAsk(['a', 'b', 'c', 'd']).map((p) => ({ ...p, more: null }));
    for (const answers of [[], alike])
      expect([...weightsByPairs(['a', 'b', 'c', 'd'], answers).values()]).toEqual([25, 25, 25, 25]);
  });
  it('always adds up to 100, and who wins more pairs never weighs less', () => {
    const headings = ['a', 'b', 'c', 'd', 'e'];
    const pairs = pairsToAsk(headings);
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a' as const, 'b' as const, null), {
          minLength: pairs.length,
          maxLength: pairs.length,
        }),
        (more) => {
          const answers = pairs.map((p, i) => ({ ...p, more: more[i]! }));
          const weights = weightsByPairs(headings, answers);
          const wins = (h: string) =>
            answers.reduce(
              (s, p) => s + (p.more === null ? Number(p.a === h || p.b === h) : 2 * Number(p[p.more] === h)),
              0,
            );
          expect([...weights.values()].reduce((s, w) => s + w, 0)).toBe(100);
          for (const x of headings)
            for (const y of headings)
              if (wins(x) > wins(y)) expect(weights.get(x)!).toBeGreaterThanOrEqual(weights.get(y)!);
        },
      ),
    );
  });
});

describe('the map of two weights', () => {
  const points = [
    { name: 'Sturdy', points: [10, 0, 5] },
    { name: 'Cheap', points: [0, 10, 5] },
  ];
  it('along the line where both weigh the same neither leads; on either side who has that heading does', () => {
    for (const { x, y, leader } of weightsMap([40, 40, 20], points, [0, 1], 10))
      expect(leader).toBe(x > y + 1e-9 ? 'Sturdy' : y > x + 1e-9 ? 'Cheap' : null);
  });
  it('has half the square, and with two headings alone a line', () => {
    expect(weightsMap([1, 1, 1], points, [0, 1], 10)).toHaveLength(45);
    const line = weightsMap([1, 1], points.map((p) => ({ ...p, points: p.points.slice(0, 2) })), [0, 1], 4); // prettier-ignore
    expect(line.map((c) => c.leader)).toEqual(['Cheap', 'Cheap', 'Sturdy', 'Sturdy']);
  });
  it('says of every place what the scorecard with those weights says', () => {
    const three = [
      { name: 'A', points: [9, 2, 6, 1] },
      { name: 'B', points: [3, 8, 5, 2] },
      { name: 'C', points: [5, 5, 5, 9] },
    ];
    for (const { x, y, leader } of weightsMap([10, 20, 30, 40], three, [1, 3], 8)) {
      const left = 1 - x - y;
      const made = scorecard(
        [left * 0.25, x, left * 0.75, y].map((weight, i) => ({ name: String(i), weight })),
        three,
      );
      if (!made.ok) throw new Error(made.error.tag);
      const first = made.value.contenders.filter((c) => c.place === 1);
      expect(leader).toBe(first.length === 1 ? first[0]!.name : null);
    }
  });
});
