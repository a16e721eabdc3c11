import { expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entry, plan } from '../testing/trial';
import { mixingItems } from './mixingItems';

const mix = (amount: number, wanted: number) =>
  entry({
    kind: 'mix',
    treatmentId: 'A',
    batch: 'b',
    volumeL: 3,
    stepG: 1,
    amounts: [{ productId: 'feed', amount, unit: 'g', wanted }],
  });
const read = (value: number) =>
  entry({
    kind: 'reading',
    quantity: 'ec',
    value,
    subject: 'bottle',
    unitId: null,
    treatmentId: 'A',
    instrument: 'typed',
  });

it('says how many batches, how far off, and how strong they were', () => {
  expect(mixingItems(deriveState(plan(), [mix(3, 3), mix(2, 2.4), read(1.2), read(1.4)]))).toEqual([
    'Solutions: follow the chart and top up; 2 batches in the log, what was measured out at most −16.7 % off what was wanted, weighed in steps of 1 g.',
    'EC (strength) as read, mean in mS/cm: A 1.30.',
  ]);
  expect(mixingItems(deriveState(plan(), []))).toEqual([]);
  const water = entry({ kind: 'mix', treatmentId: 'Water', batch: 'w', volumeL: 3, amounts: [] });
  expect(mixingItems(deriveState(plan(), [water]))).toEqual([
    'Solutions: follow the chart and top up; 1 batch in the log.',
  ]);
});
