// °F to °C: NIST SP 811, appendix B.8: (t − 32)/1.8.
import { describe, expect, it } from 'vitest';
import { inFigures } from './region';
import { celsius, parseTemperature, temperatureShown, temperatureText, warmthText } from './temperature';

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

describe('where degrees are Fahrenheit', () => {
  const there = <T>(make: () => T): T => inFigures('en-US', make);
  it('a bare figure is in them, C behind it says otherwise', () => {
    expect(there(() => ['77', '77 F', '25 C', '32'].map(parseTemperature))).toEqual([25, 25, 25, 0]);
    expect(['77', '77 F', '25 C'].map(parseTemperature)).toEqual([77, 25, 25]);
  });
  // NIST SP 811, B.9: 37 °C is 98.6 °F; a difference of 10 K is one of 18 °F.
  it('what the log has in °C is written in them, differences without the 32', () => {
    expect(there(() => temperatureText(37, 1))).toBe('98.6 °F');
    expect(temperatureText(37, 1)).toBe('37.0 °C');
    expect(there(() => warmthText(10, 1))).toBe('+18.0');
    expect(warmthText(-1.8, 1)).toBe('−1.8');
  });
  it('what is written comes back as it was', () => {
    for (const c of [-20, 0, 4.4, 21.44, 60])
      expect(
        celsius(
          there(() => temperatureShown(c)),
          '°F',
        ),
      ).toBeCloseTo(c, 10);
  });
});
