import { expect, it } from 'vitest';
import { entry, plan } from '../testing/trial';
import { deriveState } from './state';
import { tareDrift } from './tareDrift';

const tare = (subject: string, value: number) =>
  entry({
    ...{ kind: 'reading', quantity: 'tare', value, subject, unitId: null },
    ...{ treatmentId: null, instrument: 'typed' },
  });
const of = (...tares: number[]) =>
  tareDrift(
    deriveState(
      plan(),
      tares.map((t) => tare('Bowl', t)),
    ),
    'Bowl',
  );

it('a tare that changed is noticed, a last digit that flickers isn’t', () => {
  expect(of(112.4)).toBeNull();
  expect(of(112.4, 112.6)).toBeNull();
  expect(of(112.4, 113.1)).toEqual({ before: 112.4, now: 113.1 });
  expect(of(112.4, 113.1, 113.0)).toBeNull();
  // A heavy bucket: 3 g of 2 kg is within what such scales show.
  expect(of(2000, 2003)).toBeNull();
  expect(of(2000, 2010)).not.toBeNull();
  expect(tareDrift(deriveState(plan(), [tare('Other', 5), tare('Bowl', 112)]), 'Bowl')).toBeNull();
});
