import { expect, it } from 'vitest';
import { driftOf, inBand } from './drift';

it('drift from the first to the last reading, whatever order they come in', () => {
  const r = (at: string, value: number) => ({ at, value });
  const list = [
    r('2026-03-05T08:00:00Z', 6.6),
    r('2026-03-01T08:00:00Z', 5.8),
    r('2026-03-03T08:00:00Z', 6.1),
  ];
  expect(driftOf(list)).toMatchObject({
    change: expect.closeTo(0.8, 9),
    days: 4,
    perDay: expect.closeTo(0.2, 9),
    start: { value: 5.8 },
  });
  expect(driftOf(list.slice(1, 2))).toBeNull();
  expect(driftOf([r('2026-03-01T08:00:00Z', 1), r('2026-03-01T08:01:00Z', 2)])!.perDay).toBeNull();
});

it('bands with one end or two', () => {
  expect([inBand(5.4, 5.5, 6.5), inBand(6, 5.5, 6.5), inBand(7, 5.5, 6.5)]).toEqual([
    'below',
    'within',
    'above',
  ]);
  expect([inBand(9, 5.5, null), inBand(3, null, 6), inBand(3, null, null)]).toEqual([
    'within',
    'within',
    null,
  ]);
});
