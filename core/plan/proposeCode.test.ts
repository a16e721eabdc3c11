import { expect, it } from 'vitest';
import { proposeCode } from './proposeCode';

it.each([
  ['coriander', 'Does it pay?', [], 'COR'],
  ['coriander', 'Does it pay?', ['COR'], 'PAY'],
  ['', 'Is the dear feed worth it?', [], 'DEA'],
  ['Rübe', '', [], 'RUB'],
  ['', 'Is it?', [], ''],
  ['pea', 'Is it?', ['PEA'], 'PEB'],
])('%s, “%s” with %j taken: %s', (crop, question, taken, code) => {
  expect(proposeCode(crop, question, taken)).toBe(code);
});
