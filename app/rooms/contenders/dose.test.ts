import { expect, it } from 'vitest';
import { product } from '~core/testing/trial';
import { usMeasures } from '~core/quantity/units';
import { type GivenAs, resolveDose } from './dose';

const unit = { noun: 'pot', areaCm2: null, plants: null, mediumL: 3 };
const dose = (amount: string, way: GivenAs, mediumL: number | null = 3, solutionLPerUnit = '') =>
  resolveDose({ amount, unit: 'g', solutionLPerUnit, way }, product({ form: 'powder' }), usMeasures, {
    ...unit,
    mediumL,
  });

it('a rate by the litre of medium is taken for the medium of a unit', () => {
  expect(dose('4 g/L', 'medium')).toMatchObject({
    value: { amount: 12, unit: 'g', rateText: '4 g/L', solutionLPerUnit: null },
  });
  expect(dose('4 g/L', 'medium', null)).toMatchObject({
    error: { field: 'amount', message: 'How much medium is in a pot? The dose is by the litre of it.' },
  });
  // Water typed before the way was chosen isn't given.
  expect(dose('4 g/L', 'medium', 3, '0.5')).toMatchObject({ value: { amount: 12, solutionLPerUnit: null } });
});
it('what is given as it is has no water: a rate by the litre asks for it', () => {
  expect(dose('4 g/L', 'dry', 3, '0.5')).toMatchObject({
    error: { message: 'By the litre: choose in which water it is given.' },
  });
  expect(dose('4 g per pot', 'dry', 3, '0.5')).toMatchObject({
    value: { amount: 4, solutionLPerUnit: null },
  });
});
it('a spray and what comes after the other have water of their own', () => {
  for (const way of ['spray', 'after'] as const)
    expect(dose('4 g/L', way, null, '0.5')).toMatchObject({ value: { amount: 4, solutionLPerUnit: 0.5 } });
});
