// What this device's own clock and zone decide; `npm test` runs it in three zones, hours apart and across changes of the clock.
import { describe, expect, it } from 'vitest';
import { localDay } from '~core/log/localDay';
import { dateOfDay } from '~core/plan/days';
import { momentOf, noonOf } from '../store/change';
import { relativeDay, todayDate } from '../ui/clock';

const days = Array.from({ length: 366 }, (_, i) => dateOfDay('2026-01-01', i));

describe(`in ${Intl.DateTimeFormat().resolvedOptions().timeZone}`, () => {
  it('a time of a day is of that day, each day of the year and each hour', () => {
    for (const date of days)
      for (const time of ['00:00', '00:30', '01:30', '02:30', '03:00', '12:00', '23:59'])
        expect(localDay(momentOf(date, time)), `${date} ${time}`).toBe(date);
    for (const date of days) expect(localDay(noonOf(date))).toBe(date);
  });
  it('tomorrow is tomorrow, also in the night in which an hour is lost or comes twice', () => {
    for (const [i, date] of days.slice(1).entries()) {
      expect(relativeDay(date, days[i]!)).toBe('tomorrow');
      expect(relativeDay(days[i]!, date)).toBe('yesterday');
    }
    expect(relativeDay(dateOfDay('2026-01-01', 200), '2026-01-01')).toBe('in 200 days');
  });
  it('today is the date on the wall', () => {
    const now = new Date();
    const wall = [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((n) =>
      String(n).padStart(2, '0'),
    );
    expect(todayDate()).toBe(wall.join('-'));
  });
});
