// Reference: R, by matrices of the table of both scores (webR), and for the quadratic one its identity with means and
// variances (Fleiss and Cohen 1973, Educational and Psychological Measurement 33, 613–619).
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import { weightedKappa } from './weightedKappa';

const r = await startR();
const steps = [1, 2, 3, 4, 5];
const inR = (pairs: [number, number][], power: number) =>
  r.numbers(`
    a <- factor(c(${pairs.map((p) => p[0]).join(',')}), ${`c(${steps.join(',')})`})
    b <- factor(c(${pairs.map((p) => p[1]).join(',')}), ${`c(${steps.join(',')})`})
    p <- table(a, b) / length(a)
    w <- abs(outer(1:5, 1:5, "-"))^${power}
    1 - sum(w * p) / sum(w * outer(rowSums(p), colSums(p)))`);

describe('weighted kappa', () => {
  it.each([
    [
      [
        [1, 1],
        [2, 2],
        [3, 4],
        [4, 4],
        [5, 3],
        [2, 1],
        [3, 3],
        [5, 5],
      ],
    ],
    [
      [
        [1, 5],
        [5, 1],
        [2, 4],
        [4, 2],
      ],
    ],
    [
      [
        [3, 3],
        [3, 2],
        [3, 4],
        [2, 2],
        [4, 5],
        [1, 1],
        [1, 2],
        [5, 5],
        [5, 4],
        [4, 4],
      ],
    ],
  ] as [[number, number][]][])('%j as R has it, linear and quadratic', async (pairs) => {
    expect(weightedKappa(pairs, steps, 'linear')).toBeCloseTo((await inR(pairs, 1))[0]!, 10);
    expect(weightedKappa(pairs, steps, 'quadratic')).toBeCloseTo((await inR(pairs, 2))[0]!, 10);
  });
  it('quadratic: 1 − E(a − b)² / (var a + var b + (mean a − mean b)²)', () => {
    const one = fc.tuple(fc.constantFrom(...steps), fc.constantFrom(...steps));
    fc.assert(
      fc.property(fc.array(one, { minLength: 2, maxLength: 40 }), (pairs) => {
        const n = pairs.length;
        const mean = (f: (p: [number, number]) => number) => pairs.reduce((s, p) => s + f(p), 0) / n;
        const [ma, mb] = [mean((p) => p[0]), mean((p) => p[1])];
        const all = mean((p) => (p[0] - ma) ** 2) + mean((p) => (p[1] - mb) ** 2) + (ma - mb) ** 2;
        const own = weightedKappa(pairs, steps, 'quadratic');
        if (all === 0) expect(own).toBeNull();
        else expect(own).toBeCloseTo(1 - mean((p) => (p[0] - p[1]) ** 2) / all, 10);
      }),
    );
  });
  it('says nothing of no pairs', () => expect(weightedKappa([], steps, 'linear')).toBeNull());
});
