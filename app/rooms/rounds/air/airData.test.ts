import { describe, expect, it } from 'vitest';
import { inFigures } from '~core/quantity/region';
import { bandsOf } from './AirView';
import { type AirDifference, differenceWords } from './airData';

const difference = (over: Partial<AirDifference> = {}): AirDifference => ({
  ...{ quantity: 'temperature', name: 'Temperature', unit: '°C', a: 'Level 1', b: 'Level 2' },
  ...{ hours: 408, all: -0.6, day: 0.01, night: -1.8 },
  ...over,
});

describe('one place against another', () => {
  it('is said from the side that has more, where it is worth a word', () => {
    expect(differenceWords(difference())).toBe(
      'Level 2 was 1.8 °C warmer at night than Level 1 (408 hours of both).',
    );
    expect(differenceWords(difference({ day: 2, night: -0.5, all: 1 }))).toBe(
      'Level 1 was 2 °C warmer by day and 0.5 °C colder at night than Level 2 (408 hours of both).',
    );
  });
  it('is worth a word by the same warmth where degrees are Fahrenheit', () => {
    const there = (d: Partial<AirDifference>) =>
      inFigures('en-US', () => differenceWords(difference({ unit: '°F', ...d })));
    expect(there({ night: -3.24 })).toBe(
      'Level 2 was 3.2 °F warmer at night than Level 1 (408 hours of both).',
    );
    // 0.4 °F is less than 0.3 °C.
    expect(there({ night: -0.4, all: -0.2 })).toBeNull();
  });
  it('names the quantity where its own word doesn’t', () => {
    expect(differenceWords(difference({ quantity: 'vpd', unit: 'kPa', night: -0.19 }))).toBe(
      'Level 2 was 0.19 kPa higher in vapour-pressure deficit at night than Level 1 (408 hours of both).',
    );
  });
  it('isn’t said where they were alike', () => {
    expect(differenceWords(difference({ night: -0.2, all: -0.1 }))).toBeNull();
    expect(differenceWords(difference({ day: null, night: null, all: 0 }))).toBeNull();
  });
});

describe('a band in the address', () => {
  const search = new URLSearchParams('band=temperature:17:26&band=humidity:50:');
  it('has temperatures in °C, whatever degrees the device writes', () => {
    expect([...bandsOf(search)]).toEqual([
      ['temperature', [17, 26]],
      ['humidity', [50, null]],
    ]);
    expect(inFigures('en-US', () => [...bandsOf(search)])).toEqual([
      ['temperature', [62.6, 78.8]],
      ['humidity', [50, null]],
    ]);
  });
});
