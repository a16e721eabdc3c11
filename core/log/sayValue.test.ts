import { expect, it } from 'vitest';
import { trait } from '../testing/trial';
import { sayValue } from './sayValue';

it.each([
  ['5 of 5', { value: 5 }, { kind: 'ratio', unit: '%', outOf: 5 }],
  ['3 of 4', { value: 3, outOf: 4 }, { kind: 'ratio', unit: '%', outOf: 5 }],
  ['4 of 5, 1 borderline', { value: 4, borderline: 1, offType: 0 }, { kind: 'ratio', unit: '%', outOf: 5 }],
  ['4 of 5, 2 of them off type', { value: 4, offType: 2 }, { kind: 'ratio', unit: '%', outOf: 5 }],
  ['4.0 cm', { value: 4, borderline: 1 }, { kind: 'number', unit: 'cm' }],
  ['not yet on day 6', { value: 6, notYet: true }, { kind: 'time', unit: 'd' }],
  ['6 d', { value: 6 }, { kind: 'time', unit: 'd', decimals: 0 }],
  ['yes', { value: 1 }, { kind: 'yesno', unit: '' }],
  ['no', { value: 0 }, { kind: 'yesno', unit: '' }],
  ['4.3 cm', { value: 4.25 }, { kind: 'number', unit: 'cm' }],
] as const)('%s', (said, value, over) => {
  expect(sayValue(value, trait(over))).toBe(said);
});
