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
  expect(whenOf({ at: 'round' }, '2026-03-11', '2026-04-20')).toEqual({ date: '2026-03-11', time: '12:00' });
  expect(whenOf({ at: 'round' }, '2026-03-11', '2026-03-11')).toBeUndefined();
  expect(whenOf({ at: 'now' }, '2026-03-11', '2026-04-20')).toBeUndefined();
  expect(whenOf({ at: 'other', date: '2026-03-12', time: '' }, '2026-03-11', '2026-04-20')).toEqual({
    date: '2026-03-12',
    time: '12:00',
  });
});

it('a moment that can’t be is said', () => {
  expect(faultOfSitting({ at: 'other', date: '2026-03-99', time: '' }, '2026-04-20', '09:00')).toBe(
    'A whole day.',
  );
  expect(faultOfSitting({ at: 'other', date: '2026-04-21', time: '' }, '2026-04-20', '09:00')).toMatch(
    /still to come/,
  );
  expect(faultOfSitting({ at: 'round' }, '2026-04-20', '09:00')).toBeNull();
});

it('an hour of today that is still to come isn’t written', () => {
  const at = (time: string) =>
    faultOfSitting({ at: 'other', date: '2026-04-20', time }, '2026-04-20', '09:00');
  expect(at('12:00')).toBe('That hour is still to come.');
  expect(at('')).toBe('That hour is still to come.');
  expect([at('08:59'), at('09:00')]).toEqual([null, null]);
  expect(
    faultOfSitting({ at: 'other', date: '2026-04-19', time: '23:00' }, '2026-04-20', '09:00'),
  ).toBeNull();
});
