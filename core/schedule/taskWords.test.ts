import { expect, it } from 'vitest';
import { whenWords } from './taskWords';

const when = { after: null, day: 4, everyDays: null, untilDay: null, at: null };
it.each([
  [{}, 'day 4'],
  [{ day: -1, at: '21:00' }, '1 day before the start, 21:00'],
  [{ after: 'the end', day: 0 }, 'at the end'],
  [{ after: 'leaves of neighbours touch', day: 0 }, 'when leaves of neighbours touch'],
  [{ after: 'first flower', day: 3 }, '3 days after first flower'],
  [{ after: 'the end', day: -2 }, '2 days before the end'],
  [{ everyDays: 1, untilDay: 21 }, 'day 4, then every day to day 21'],
  [{ everyDays: 7 }, 'day 4, then every 7 days to the end'],
])('%j is said as “%s”', (over, words) => {
  expect(whenWords({ ...when, ...over })).toBe(words);
});
