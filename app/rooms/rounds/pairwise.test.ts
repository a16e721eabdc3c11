import fc from 'fast-check';
import { expect, it } from 'vitest';
import { type Pairwise, answerPair, beginPairwise, pairToAsk, questionsLeft } from './pairwise';

it('finds the order that the answers have, ties too, in no more questions than it says', () => {
  const sizes = fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 30 });
  fc.assert(
    fc.property(sizes, (size) => {
      const ids = size.map((_, i) => String(i));
      let p: Pairwise = beginPairwise(ids);
      let asked = 0;
      for (let pair = pairToAsk(p); pair; pair = pairToAsk(p)) {
        const most = questionsLeft(p);
        const [a, b] = pair.map((id) => size[Number(id)]!) as [number, number];
        p = answerPair(p, a > b ? 'first' : a < b ? 'second' : 'alike');
        asked += 1;
        expect(questionsLeft(p)).toBeLessThanOrEqual(most - 1 + 1e-9);
      }
      expect(p.sorted.flat().sort()).toEqual([...ids].sort());
      const found = p.sorted.map((g) => [...new Set(g.map((id) => size[Number(id)]!))]);
      expect(found.every((g) => g.length === 1)).toBe(true);
      const order = found.map((g) => g[0]!);
      expect(order).toEqual([...order].sort((x, y) => y - x));
      // Merging n things needs no more than n·log2 n comparisons.
      expect(asked).toBeLessThanOrEqual(Math.ceil(ids.length * Math.log2(Math.max(2, ids.length))));
    }),
  );
});
