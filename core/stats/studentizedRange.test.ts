// Reference: R's ptukey through webR and @stdlib's port of it (both good to about 1e-8; forty times the
// nodes moves ours by 4e-11); the t distribution for two groups.
import { beforeAll, expect, it } from 'vitest';
import stdlibCdf from '@stdlib/stats-base-dists-studentized-range-cdf';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import { type R, startR } from '../testing/r';
import { studentizedRangeCdf, studentizedRangeQuantile } from './studentizedRange';

let r: R;
beforeAll(async () => {
  r = await startR();
});

it.each([
  [3.5, 4, 20],
  [1.2, 3, 6],
  [8, 10, 3],
  [4.1, 12, 60],
  [2.5, 2, 200],
])('P(q ≤ %d), %d groups, %d df agrees with R and @stdlib', async (q, k, df) => {
  const [reference] = await r.numbers(`ptukey(${q}, ${k}, ${df})`);
  expect(studentizedRangeCdf(q, k, df)).toBeCloseTo(reference!, 7);
  expect(studentizedRangeCdf(q, k, df)).toBeCloseTo(stdlibCdf(q, k, df), 7);
});

it.each([1, 2, 5, 30])('two groups are Student’s t with %d df', (df) => {
  for (const t of [0.3, 1, 2.5, 10]) {
    expect(studentizedRangeCdf(t * Math.SQRT2, 2, df)).toBeCloseTo(1 - 2 * tCdf(-t, df), 7);
  }
});

it('quantiles invert the distribution', () => {
  // Tukey's table, 5 %: 3 groups, 27 df about 3.51; 4 groups, 20 df 3.96 (memory)
  expect(studentizedRangeQuantile(0.95, 3, 27)).toBeCloseTo(3.51, 2);
  expect(studentizedRangeQuantile(0.95, 4, 20)).toBeCloseTo(3.96, 2);
  expect(studentizedRangeCdf(studentizedRangeQuantile(0.9, 6, 2), 6, 2)).toBeCloseTo(0.9, 10);
});
