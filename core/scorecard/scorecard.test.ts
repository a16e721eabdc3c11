import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Heading, type Points, scorecard } from './scorecard';

const of = (headings: Heading[], contenders: Points[]) => {
  const made = scorecard(headings, contenders);
  if (!made.ok) throw new Error(made.error.tag);
  return made.value;
};

it('by hand: two headings, two contenders', () => {
  const card = of(
    [
      { name: 'looks', weight: 1 },
      { name: 'yield', weight: 3 },
    ],
    [
      { name: 'A', points: [2, 8] },
      { name: 'B', points: [8, 5] },
    ],
  );
  // A: (2 + 24)/4 = 6.5; B: (8 + 15)/4 = 5.75. Level where 8 − 6w = 5 + 3w: w = 1/3.
  expect(card.contenders).toEqual([
    { name: 'A', score: 6.5, place: 1 },
    { name: 'B', score: 5.75, place: 2 },
  ]);
  expect(card.flips[0]).toMatchObject({ heading: 'looks', weightNow: 0.25, winner: 'B' });
  expect(card.flips[0]!.weightThen).toBeCloseTo(1 / 3, 12);
  expect(card.flips[1]!.weightThen).toBeCloseTo(2 / 3, 12);
});

it('ties share a place; who is ahead everywhere is never overtaken', () => {
  const card = of(
    [
      { name: 'a', weight: 1 },
      { name: 'b', weight: 1 },
    ],
    [
      { name: 'X', points: [9, 9] },
      { name: 'Y', points: [4, 6] },
      { name: 'Z', points: [6, 4] },
    ],
  );
  expect(card.contenders.map((c) => c.place)).toEqual([1, 2, 2]);
  expect(card.flips.map((f) => f.weightThen)).toEqual([null, null]);
});

describe('against brute force over a fine grid', () => {
  const GRID = 4000;
  const points = fc.array(
    fc.integer({ min: 0, max: 20 }).map((x) => x / 2),
    { minLength: 3, maxLength: 3 },
  );
  it('no other leads before the point, and the named one does beyond it', () => {
    fc.assert(
      fc.property(
        fc.array(points, { minLength: 2, maxLength: 5 }),
        fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 3, maxLength: 3 }),
        (all, weights) => {
          const headings = weights.map((weight, i) => ({ name: `h${i}`, weight }));
          const contenders = all.map((p, i) => ({ name: `c${i}`, points: p }));
          const card = of(headings, contenders);
          const total = weights.reduce((a, b) => a + b, 0);
          const firsts = card.contenders.filter((c) => c.place === 1).map((c) => c.name);
          card.flips.forEach((flip, h) => {
            const now = weights[h]! / total;
            const at = (w: number, p: readonly number[]) =>
              p.reduce(
                (s, x, i) => s + (i === h ? w : ((1 - w) * weights[i]!) / (total - weights[h]!)) * x,
                0,
              );
            const leaders = (w: number) => {
              const scores = contenders.map((c) => at(w, c.points));
              const best = Math.max(...scores);
              return contenders.filter((_, i) => scores[i]! > best - 1e-9).map((c) => c.name);
            };
            const reach = flip.weightThen === null ? Infinity : Math.abs(flip.weightThen - now);
            const others = Array.from({ length: GRID + 1 }, (_, g) => g / GRID).filter(
              // Nearer than the point only those lead that are first now.
              (w) => Math.abs(w - now) < reach - 1e-6 && !leaders(w).every((n) => firsts.includes(n)),
            );
            expect(others).toEqual([]);
            if (flip.weightThen !== null) {
              expect(leaders(flip.weightThen)).toContain(flip.winner);
              const beyond = flip.weightThen + Math.sign(flip.weightThen - now) * 1e-5;
              if (beyond > 0 && beyond < 1) expect(leaders(beyond)).toContain(flip.winner);
            }
          });
        },
      ),
      { numRuns: 60 },
    );
  });
});

it('what can’t be weighed is said', () => {
  const two = [
    { name: 'A', points: [1] },
    { name: 'B', points: [2] },
  ];
  const tag = (headings: Heading[], contenders = two) => {
    const made = scorecard(headings, contenders);
    return made.ok ? 'ok' : made.error.tag;
  };
  expect(tag([{ name: 'a', weight: 1 }])).toBe('ok');
  expect(tag([])).toBe('noHeadings');
  expect(tag([{ name: 'a', weight: -1 }])).toBe('badWeight');
  expect(tag([{ name: 'a', weight: 0 }])).toBe('noWeight');
  expect(tag([{ name: 'a', weight: 1 }], two.slice(1))).toBe('fewContenders');
  // One heading alone: nothing can be moved.
  expect(of([{ name: 'a', weight: 1 }], two).flips[0]).toMatchObject({ weightNow: 1, weightThen: null });
});
