import fc from 'fast-check';
import { expect, it } from 'vitest';
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import { smoothTable } from './smoothTable';

it('gives the function back to 1e-12 between its points, and exactly on them', () => {
  const f = (x: number) => normalCdf(3 * (x - 2), 0, 1);
  const table = smoothTable(f);
  fc.assert(
    fc.property(fc.double({ min: 0, max: 20, noNaN: true }), (x) => {
      expect(Math.abs(table(x) - f(x))).toBeLessThan(1e-12);
    }),
  );
  expect(table(0.5)).toBe(f(0.5));
});

it('asks for no more than the panels it needs', () => {
  let asked = 0;
  const table = smoothTable((x) => {
    asked += 1;
    return x;
  });
  for (let i = 0; i < 1000; i++) table(i / 1000);
  expect(asked).toBeLessThanOrEqual(2 * 14);
});
