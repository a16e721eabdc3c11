import { expect, it } from 'vitest';
import { contrast, pooledErrors } from './contrast';
import { fitLinearModel } from './linearModel';

const rows = [1, 3, 4, 6].map((value, i) => ({ treatment: i < 2 ? 0 : 1, block: 0, column: 0, value }));

it('is the difference of the means and its standard error', () => {
  const fit = fitLinearModel(rows, 2, 1, 1);
  if (!fit.ok) throw new Error('no fit');
  // means 2 and 5, residual mean square 2 on 2 degrees of freedom: √(2 (1/2 + 1/2)) = √2, by hand
  const c = contrast(fit.value, pooledErrors(fit.value), 1, 0);
  expect(c.difference).toBeCloseTo(3, 12);
  expect(c.se).toBeCloseTo(Math.SQRT2, 12);
  // the other way round it changes its sign alone
  expect(contrast(fit.value, pooledErrors(fit.value), 0, 1)).toMatchObject({
    difference: expect.closeTo(-3, 12),
    se: c.se,
  });
});
it('has no standard error without a residual', () => {
  const fit = fitLinearModel([rows[0]!, rows[2]!], 2, 1, 1);
  if (!fit.ok) throw new Error('no fit');
  expect(contrast(fit.value, pooledErrors(fit.value), 1, 0)).toEqual({
    difference: expect.closeTo(3, 12),
    se: null,
  });
});
