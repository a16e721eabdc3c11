// Trials as they are: a few hundred seeds; `npm run untidy -- --trials 5000 --seed 7` takes thousands.
import { describe, expect, it } from 'vitest';
import { findingOf } from '../account/findingInput';
import { shownOf } from '../account/shown';
import { deriveState } from '../log/state';
import { type Fact, contradictions, statement } from '../say/statement';
import { headline } from '../say/words';
import { checkUntidy } from './checkUntidy';
import { falsehood, wordFaults } from './oracles';
import { untidyTrial } from './untidy';

const SEEDS = 300;

describe('what is said of untidy trials', () => {
  it('is true, doesn’t contradict itself, and nothing throws', () => {
    const faults = Array.from({ length: SEEDS }, (_, i) => i + 1).flatMap((seed) => {
      const found = checkUntidy(untidyTrial(seed));
      return Object.entries(found as unknown as Record<string, string[]>).flatMap(([kind, list]) =>
        list.map((f) => `seed ${seed}, ${kind}: ${f}`),
      );
    });
    expect(faults).toEqual([]);
  }, 120_000);
  it('the maker makes the same of a seed, and all kinds of damage', () => {
    expect(untidyTrial(5)).toEqual(untidyTrial(5));
    const damage = new Set(Array.from({ length: SEEDS }, (_, i) => untidyTrial(i + 1).damage).flat());
    for (const kind of [
      'the control died',
      'the first contender died',
      'all zero',
      'no spread',
      'labels lost',
      'systems',
      'species',
      'one batch is logged',
      'a round nobody made',
      'the last round half made',
      'the deciding trait without a value',
    ])
      // prettier-ignore
      expect(damage).toContain(kind);
  });
});

describe('the oracles', () => {
  /** The findings of some seeds, with what is claimed of each. */
  const cases = Array.from({ length: 120 }, (_, i) => untidyTrial(i + 1)).flatMap((untidy) => {
    const { state } = shownOf(deriveState(untidy.trial.plan, untidy.trial.log), untidy.trial.key);
    const f = findingOf(state, state.plan.traits[0]!, { today: untidy.today });
    return f.ok ? [{ untidy, finding: f.value, facts: headline(f.value, (x) => x).facts }] : [];
  });
  const wrong = (change: (f: Fact) => Fact | null) =>
    cases.flatMap(({ untidy, finding, facts }) =>
      facts.flatMap((f) => {
        const other = change(f);
        return other === null ? [] : [falsehood(other, untidy, finding)];
      }),
    );
  /** How many of the changed facts an oracle finds false. */
  const caught = (change: (f: Fact) => Fact | null) => {
    const found = wrong(change);
    return found.filter((w) => w !== null).length / found.length;
  };
  it('see a winner turned round, a winner where nothing was told, and a test that wasn’t made', () => {
    const turned = caught((f) => (f.is === 'better' ? { ...f, a: f.b, b: f.a } : null));
    expect(turned).toBeGreaterThan(0.9);
    expect(caught((f) => (f.is === 'notTold' ? { ...f, is: 'better' } : null))).toBeGreaterThan(0.6);
    expect(caught((f) => (f.is === 'untested' ? { ...f, is: 'notTold' } : null))).toBeGreaterThan(0.5);
    expect(caught((f) => (f.is === 'noFigure' ? { is: 'figure', a: f.a } : null))).toBe(1);
    expect(caught((f) => (f.is === 'control' ? { is: 'noControl' } : null))).toBeGreaterThan(0.9);
  });
});

describe('what mustn’t stand beside what', () => {
  const say = (...facts: Fact[]) => statement('note', 'x', facts);
  const clash = (a: Fact, b: Fact) => contradictions([say(a), say(b)]).length;
  it.each<[string, Fact, Fact, number]>([
    ['beat, and too close', { is: 'better', a: 'A', b: 'B' }, { is: 'notTold', a: 'B', b: 'A' }, 1],
    ['beat, both ways', { is: 'better', a: 'A', b: 'B' }, { is: 'better', a: 'B', b: 'A' }, 1],
    ['beat, twice said', { is: 'better', a: 'A', b: 'B' }, { is: 'better', a: 'A', b: 'B' }, 0],
    ['leads, and is beaten', { is: 'leads', a: 'A' }, { is: 'better', a: 'B', b: 'A' }, 1],
    ['untested, and too close', { is: 'untested', a: 'A', b: 'B' }, { is: 'notTold', a: 'A', b: 'B' }, 1],
    ['no figure, and beat', { is: 'noFigure', a: 'A' }, { is: 'better', a: 'A', b: 'B' }, 1],
    [
      'by the log, by the plan',
      { is: 'given', a: 'A', by: 'log', batches: 1 },
      { is: 'given', a: 'B', by: 'plan', batches: 0 },
      1,
    ],
    [
      'first in all draws, and not told',
      { is: 'firstOf100', a: 'A', of100: 100 },
      { is: 'notTold', a: 'A', b: 'B' },
      1,
    ],
    ['of others', { is: 'better', a: 'A', b: 'B' }, { is: 'notTold', a: 'A', b: 'C' }, 0],
  ])('%s', (_, a, b, n) => {
    expect(clash(a, b)).toBe(n);
    expect(clash(b, a)).toBe(n);
  });
  it('words that no sentence holds', () => {
    expect(wordFaults(['1 trays', 'NaN g', 'scored by P..', '124.992161222 %'])).toHaveLength(4);
    expect(wordFaults(['5.1 times the least', '1 tray', 'and so on …', '12.5 g'])).toEqual([]);
  });
});
