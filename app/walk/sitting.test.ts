import { expect, it } from 'vitest';
import { plan } from '~core/testing/trial';
import { faultOfSitting, usualSitting, whenOf } from './sitting';

const p = { ...plan(), startDate: '2026-03-01' };
const round = { ...p.rounds[0]!, day: 10 };

it('a round long past begins on its day, one of this week or to come with now', () => {
  expect(usualSitting(p, round, '2026-04-20')).toEqual({ at: 'round' });
  expect(usualSitting(p, round, '2026-03-13')).toEqual({ at: 'now' });
  expect(usualSitting(p, round, '2026-03-02')).toEqual({ at: 'now' });
});

it('its acts are written on that day, at the other moment, or as they are typed', () => {
  expect(whenOf({ at: 'round' }, p, round, '2026-04-20')).toEqual({ date: '2026-03-11', time: '12:00' });
  expect(whenOf({ at: 'round' }, p, round, '2026-03-11')).toBeUndefined();
  expect(whenOf({ at: 'now' }, p, round, '2026-04-20')).toBeUndefined();
  expect(whenOf({ at: 'other', date: '2026-03-12', time: '' }, p, round, '2026-04-20')).toEqual({
    date: '2026-03-12',
    time: '12:00',
  });
});

it('a moment that can’t be is said', () => {
  expect(faultOfSitting({ at: 'other', date: '2026-03-99', time: '' }, '2026-04-20')).toBe('A whole day.');
  expect(faultOfSitting({ at: 'other', date: '2026-04-21', time: '' }, '2026-04-20')).toMatch(
    /still to come/,
  );
  expect(faultOfSitting({ at: 'round' }, '2026-04-20')).toBeNull();
});
