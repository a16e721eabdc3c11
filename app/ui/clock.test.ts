import { afterEach, describe, expect, it, vi } from 'vitest';
import { relativeDay, shortDate, shortTime } from './clock';

afterEach(() => vi.unstubAllGlobals());
const inRegion = (language: string) => vi.stubGlobal('navigator', { language });

describe('dates', () => {
  it('stand in the order the region writes them, with the year where it isn’t this one', () => {
    inRegion('en-GB');
    expect(shortDate('2019-11-03')).toBe('3 Nov 2019');
    expect(shortDate(`${new Date().getFullYear()}-03-04`)).toBe('4 Mar');
    inRegion('en-US');
    expect(shortDate('2019-11-03')).toBe('Nov 3, 2019');
  });
  it('keep English words in other regions', () => {
    inRegion('de-DE');
    expect(shortDate('2019-03-05')).toBe('5 Mar 2019');
  });
  it('a moment has its time of day', () => {
    inRegion('en-GB');
    expect(shortTime('2019-11-03T14:05')).toBe('3 Nov 2019, 14:05');
  });
});

it.each([
  ['2026-03-01', 'today'],
  ['2026-03-02', 'tomorrow'],
  ['2026-02-28', 'yesterday'],
  ['2026-03-05', 'in 4 days'],
  ['2026-02-26', '3 days ago'],
])('%s is %s', (date, words) => {
  expect(relativeDay(date, '2026-03-01')).toBe(words);
});
