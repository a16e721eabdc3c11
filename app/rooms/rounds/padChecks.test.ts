import { describe, expect, it } from 'vitest';
import { deriveState, observationsOf } from '~core/log/state';
import type { Entry } from '~core/log/entry';
import { entry, height, heightTrait, plan, trait, unitId } from '~core/testing/trial';
import { blankPad, doubtOnPad, faultOnPad, isBlankPad, valueOn } from './padChecks';

const rooted = trait({ kind: 'ratio', outOf: 5, unit: '', decimals: 0 });
const on = (over: object) => ({ ...blankPad, ...over });

describe('what stands on the pad', () => {
  it.each([
    ['', null],
    ['0.', null],
    ['0', 0],
    ['12.', 12],
    ['3.25', 3.25],
    ['14¾', 14.75],
    ['14 3/4', 14.75],
    ['14 3/', null],
  ])('“%s” is the figure %s', (text, value) => expect(valueOn(on({ text }))).toBe(value));

  it.each([
    ['more than there are', 6, {}, /more than|only 5/],
    [
      'with the borderline ones more than there are',
      4,
      { borderline: 2 },
      /^4 and 2 borderline are more than 5\.$/,
    ],
    ['more off type than were counted', 2, { offType: 3 }, /^3 off type are more than the 2 counted\.$/],
  ])('can’t be: %s', (_, value, over, said) => expect(faultOnPad(rooted, value, on(over))).toMatch(said));

  it.each([
    [5, {}],
    [3, { borderline: 2 }],
    [3, { offType: 3 }],
    [0, {}],
  ])('can be: %s with %o', (value, over) => expect(faultOnPad(rooted, value, on(over))).toBeNull());
});

describe('a value is asked about', () => {
  const tall = heightTrait({ plausibleLow: 2, plausibleHigh: 60 });
  const p = plan({ treatments: ['Water', 'A'], replicates: 1, traits: [tall] });
  const [first, second] = p.rounds as [(typeof p.rounds)[0], (typeof p.rounds)[0]];
  const unit = p.units.find((u) => u.id === unitId('Water', 0))!;
  const at = (log: Entry[], value: number, today: string | null, round = second) => {
    const state = deriveState(p, log);
    const standing = observationsOf(state, unit.id, tall.id, round.id)[0];
    return doubtOnPad(state, { unit, trait: tall, round, value, sample: null, standing, today });
  };
  const kept = (round: string, value: number) => entry(height(unit.id, value, round));
  const before = kept(first.id, 10);
  const onTheDay = (round: { day: number }) =>
    new Date(Date.parse(`${p.startDate}T12:00:00Z`) + round.day * 86_400_000).toISOString().slice(0, 10);

  it('not where it is as it was to be expected', () => {
    expect(at([before], 14, onTheDay(second))).toBeNull();
    expect(at([], 14, onTheDay(second))).toBeNull();
  });
  it('where it replaces another, and not where it says the same', () => {
    const log = [before, kept(second.id, 12)];
    expect(at(log, 14, onTheDay(second))).toBe('This replaces 12.0 cm, kept in this round.');
    expect(at(log, 12, onTheDay(second))).toBeNull();
  });
  it('where it is far from the last one, or from all that is expected', () => {
    expect(at([before], 40, onTheDay(second))).toBe('4.0 times the last value of 10 cm.');
    expect(at([before], 1, onTheDay(second))).toBe('Below 2 cm, the least expected.');
    expect(at([before], 61, onTheDay(second))).toBe('Above 60 cm, the most expected.');
  });
  it('where the round is long past or still to come; once', () => {
    expect(at([before], 14, '2031-01-01')).toMatch(/ days ago: was this measured then\?$/);
    expect(at([before], 14, onTheDay({ day: second.day - 5 }))).toMatch(/, 5 days from now\.$/);
    expect(at([before], 14, onTheDay({ day: second.day + 3 }))).toBeNull();
    expect(at([before], 14, null)).toBeNull();
  });
  it('with all that is odd about it in one go', () => {
    const said = at([before, kept(second.id, 12)], 40, '2031-01-01')!;
    for (const part of ['This replaces', 'times the last', 'days ago']) expect(said).toContain(part);
  });
});

it.each([
  [{}, true],
  [{ words: { t: '  ' } }, true],
  [{ text: '0' }, false],
  [{ words: { t: 'torn' } }, false],
  [{ borderline: 1 }, false],
  [{ offType: 2 }, false],
])('a pad with %o is blank: %s', (typed, blank) => expect(isBlankPad(on(typed))).toBe(blank));
