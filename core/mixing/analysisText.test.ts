import { expect, it } from 'vitest';
import { parseAnalysis } from './analysisText';

it.each([
  ['12-6-18', { nPercent: 12, p2o5Percent: 6, k2oPercent: 18, caPercent: null }],
  ['0.5 – 0.2 – 0.3', { nPercent: 0.5, p2o5Percent: 0.2, k2oPercent: 0.3 }],
  ['15.5-0-0,19', { nPercent: 15.5, caPercent: 19, mgPercent: null }],
  ['0-12-30, 0, 4, 6', { caPercent: 0, mgPercent: 4, sPercent: 6 }],
])('%s', (text, expected) => expect(parseAnalysis(text)).toMatchObject({ ok: true, value: expected }));

it.each([
  ['', /three figures/],
  ['12-6', /three figures/],
  ['12-6-18-2', /three figures/],
  ['12-six-18', /“six” isn’t a per cent/],
  ['12-6-180', /“180” isn’t a per cent/],
  ['12-6-18,1,2,3,4', /no more/],
])('%s is refused', (text, said) => {
  const r = parseAnalysis(text);
  expect(!r.ok && r.error).toMatch(said);
});
