import { expect, it } from 'vitest';
import { productCost } from '~core/cost/treatmentCost';
import { product, use } from '~core/testing/trial';
import { usMeasures } from '~core/quantity/units';
import { type GivenAs, resolveDose } from './dose';

const metric = { spoon: 'metric', gallon: 'us' } as const;
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
it('seed goes by the spoon once five level spoons were weighed, and is priced by its pack', () => {
  const seed = product({
    category: 'seed',
    form: 'solid',
    packs: [{ ...product().packs[0]!, size: 100, unit: 'g', priceMinor: 500 }],
    spoon: { volumeMl: 5, massesG: [4, 4.1, 3.9, 4, 4] },
  });
  const sown = resolveDose({ amount: '2 tsp', unit: 'g', solutionLPerUnit: '', way: 'dry' }, seed, metric, unit); // prettier-ignore
  expect(sown).toMatchObject({ value: { amount: 10, unit: 'mL' } });
  const cost = sown.ok && productCost(use({ ...sown.value, productId: seed.id }), seed);
  // 10 mL at 4 g for 5 mL are 8 g of 100 g at 5.00.
  expect(cost && cost.ok && cost.value.perDose.minor).toBeCloseTo(40, 9);
});
