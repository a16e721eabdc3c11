import { expect, it } from 'vitest';
import { localDay } from './localDay';

it.each([
  // half past six in the evening in Los Angeles is already tomorrow in UTC
  ['2026-03-02T02:30:00.000Z', -480, '2026-03-01'],
  ['2026-03-01T22:30:00.000Z', 120, '2026-03-02'],
  ['2026-03-01T22:30:00.000Z', 0, '2026-03-01'],
  ['2026-03-01T22:30:00.000Z', null, '2026-03-01'],
  ['2026-03-01T23:30:00+02:00', 120, '2026-03-01'],
])('%s logged %s minutes ahead of UTC is of %s', (at, offsetMin, day) => {
  expect(localDay({ at, offsetMin })).toBe(day);
});
