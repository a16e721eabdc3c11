// What a browser's language asks for, by the runtime's own CLDR tables.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plainSetUp } from '~core/model/plan';
import { usMeasures } from '~core/quantity/units';
import { figuresNow, setFigures } from '~core/quantity/region';
import { monthOf } from '../bench/acts';
import {
  chooseRegion,
  chosenRegion,
  clockText,
  currencyHere,
  dayFormat,
  dayLocale,
  figuresOf,
  unitsHere,
  weekStart,
} from './region';

const stored = new Map<string, string>();
const inLanguage = (language: string) => vi.stubGlobal('navigator', { language });
beforeEach(() => {
  stored.clear();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => stored.get(k) ?? null,
    setItem: (k: string, v: string) => void stored.set(k, v),
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  setFigures('plain');
});
const nothing = { figures: null, hours: null, weekStart: null, units: null };

describe('a device’s region', () => {
  it.each([
    ['en-US', 'en-US'],
    ['en-NZ', 'en-GB'],
    ['de-DE', 'de-DE'],
    ['de-CH', 'de-CH'],
    ['it-IT', 'fr-FR'],
    ['pl-PL', 'de-DE'],
    ['sv-SE', 'sv-SE'],
    ['lt-LT', 'sv-SE'],
    ['fr-FR', 'fr-FR'],
  ] as const)('%s writes figures and days like %s', (language, region) => {
    expect(figuresOf(language)).toBe(region);
  });
  it('a week begins as the region has it, unless something else was chosen', () => {
    inLanguage('en-US');
    expect(weekStart()).toBe(0);
    inLanguage('de-DE');
    expect(weekStart()).toBe(1);
    chooseRegion({ ...nothing, weekStart: 6 });
    expect(weekStart()).toBe(6);
  });
  it('the month begins on that day, and holds all of its days', () => {
    // 1 November 2026 is a Sunday.
    for (const [start, first] of [
      [0, '2026-11-01'],
      [1, '2026-10-26'],
      [6, '2026-10-31'],
    ] as const) {
      const weeks = monthOf('2026-11-15', start);
      expect(weeks[0]![0]).toBe(first);
      const days = weeks.flat();
      expect(days.filter((d) => d.startsWith('2026-11'))).toHaveLength(30);
    }
  });
  it('hours go to twelve or twenty-four', () => {
    inLanguage('en-GB');
    expect(clockText('14:05')).toBe('14:05');
    chooseRegion({ ...nothing, hours: 12 });
    expect(clockText('14:05').toLowerCase()).toMatch(/^2:05\spm$/);
    expect(clockText('any time')).toBe('any time');
  });
  it('what was chosen holds for every figure, and what is stored but means nothing doesn’t', () => {
    inLanguage('en-US');
    chooseRegion({ ...nothing, figures: 'de-DE' });
    expect(figuresNow()).toBe('de-DE');
    expect([chosenRegion().figures, dayLocale()]).toEqual(['de-DE', 'en-GB']);
    stored.set('palazzo/region', '{"figures":"xx","hours":13,"weekStart":3}');
    expect(chosenRegion()).toEqual(nothing);
    stored.set('palazzo/region', 'broken');
    expect(chosenRegion()).toEqual(nothing);
  });
});

describe('the order a day is typed in', () => {
  it.each([
    ['en-US', 'MM/DD/YYYY'],
    ['en-GB', 'DD/MM/YYYY'],
    ['de-DE', 'DD.MM.YYYY'],
    ['fr-FR', 'DD/MM/YYYY'],
    ['nl-NL', 'DD-MM-YYYY'],
    ['sv-SE', 'YYYY-MM-DD'],
    ['hu-HU', 'YYYY. MM. DD.'],
    ['th-TH-u-ca-buddhist', 'DD/MM/YYYY'],
  ])('in %s: %s', (language, order) => {
    inLanguage(language);
    expect(dayFormat()).toBe(order);
  });
  it('or as it was chosen', () => {
    inLanguage('en-US');
    chooseRegion({ ...nothing, figures: 'de-DE' });
    expect(dayFormat()).toBe('DD.MM.YYYY');
    chooseRegion({ ...nothing, figures: 'plain' });
    expect(dayFormat()).toBe('YYYY-MM-DD');
  });
});

describe('sizes a new trial begins with', () => {
  const before = { inches: true as const, mixing: { ...plainSetUp, measures: usMeasures } };
  it('are the region’s on an empty bench, then those of the trial before', () => {
    inLanguage('de-DE');
    expect(unitsHere()).toMatchObject({ inches: false, measures: { spoon: 'metric' } });
    expect(unitsHere(before)).toMatchObject({ inches: true, measures: { spoon: 'us' } });
    inLanguage('en-US');
    expect(unitsHere()).toMatchObject({ inches: true, measures: { gallon: 'us' } });
    expect(currencyHere()).toBe('USD');
  });
  it('unless some were chosen on the device', () => {
    inLanguage('en-US');
    chooseRegion({ ...nothing, units: 'metric' });
    expect(unitsHere(before)).toMatchObject({ inches: false });
    expect(chosenRegion().units).toBe('metric');
  });
});
