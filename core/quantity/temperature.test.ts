// °F to °C: NIST SP 811, appendix B.8: (t − 32)/1.8.
import { describe, expect, it } from 'vitest';
import { parseTemperature } from './temperature';

describe('a temperature', () => {
  it.each([
    ['21,5', 21.5],
    ['21.5 °C', 21.5],
    ['-4c', -4],
    ['77 F', 25],
    ['77°F', 25],
    ['32f', 0],
    ['68 deg F', 20],
    ['70 °F', 21.11],
  ])('%s', (text, celsius) => expect(parseTemperature(text)).toBe(celsius));
  it.each(['', 'warm', 'F', '20 K', '20 30'])('“%s” is none', (text) =>
    expect(parseTemperature(text)).toBeNull(),
  );
});
