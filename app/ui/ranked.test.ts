import fc from 'fast-check';
import { expect, it } from 'vitest';
import { type Ranked, movedTo, orderOf, placesOf, ranksOf, tiedWithAbove } from './ranked';

const of = (text: string): Ranked[] =>
  [...text.replaceAll('=', '')].map((id) => ({ id, tied: text[text.indexOf(id) - 1] === '=' }));
const said = (order: readonly Ranked[]) => order.map((r) => `${r.tied ? '=' : ''}${r.id}`).join('');

it('ties share the first of their places', () => {
  expect(placesOf(of('AB=CD'))).toEqual([1, 2, 2, 4]);
  expect(placesOf(of('A=B=CD'))).toEqual([1, 1, 1, 4]);
});
it('what is moved leaves its ties; the others keep theirs', () => {
  expect(said(movedTo(of('AB=CD'), 'D', 0))).toBe('DAB=C');
  expect(said(movedTo(of('AB=CD'), 'B', 0))).toBe('BACD');
  expect(said(movedTo(of('A=B=C'), 'B', 2))).toBe('A=CB');
  expect(said(movedTo(of('A=BC'), 'A', 2))).toBe('BCA');
  expect(said(movedTo(of('AB'), 'A', 5))).toBe('AB');
});
it('each thing has one place, whatever is moved and tied, and kept places give the order back', () => {
  const act = fc.record({
    id: fc.constantFrom('A', 'B', 'C', 'D'),
    to: fc.nat(3),
    tie: fc.option(fc.boolean()),
  });
  fc.assert(
    fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
      let order = of('ABCD');
      for (const { id, to, tie } of acts) {
        order = tie === null ? movedTo(order, id, to) : tiedWithAbove(order, id, tie);
      }
      expect(
        order
          .map((r) => r.id)
          .sort()
          .join(''),
      ).toBe('ABCD');
      expect(order[0]!.tied).toBe(false);
      const ranks = new Map(ranksOf(order).map((r) => [r.id, r.rank]));
      const again = orderOf(
        order.map((r) => r.id),
        (id) => ranks.get(id),
      );
      expect(again).toEqual(order);
    }),
  );
});
