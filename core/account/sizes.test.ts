// How much is shown of the size of a difference, and on which scale margins lie.
import { describe, expect, it } from 'vitest';
import type { Contrast } from '../analysis/contrast';
import { deriveState } from '../log/state';
import type { ProductId } from '../model/ids';
import { sayReservation } from '../say/sayContrast';
import { headline } from '../say/words';
import { harvest, plan, sold, use } from '../testing/trial';
import { makeVerdict } from '../verdict/verdict';
import { asGoodAs } from './asGood';
import { findingOf } from './findingInput';
import { leaders } from './outcomes';
import { pairOutcome } from './rank';

const id = (x: string) => x;
const base = plan({ treatments: ['Water', 'A', 'B'], replicates: 4 });
const around = (m: number, by: number) => [-1.5, -0.5, 0.5, 1.5].map((x) => m + x * by);
const found = (means: [number, number, number], by: number, matters: number | null = 10) => {
  const p = {
    ...base,
    smallestDifference: matters === null ? null : { kind: 'percent' as const, value: matters },
  };
  const [Water, A, B] = means.map((m) => around(m, by));
  const f = findingOf(deriveState(p, harvest({ Water: Water!, A: A!, B: B! })), p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  return { f: f.value, p };
};

describe('“beat” stands alone only where even the near limit matters', () => {
  it.each([
    [[50, 80, 50], 0.5, 10, 'Only A beat Water.'],
    [[50, 52, 50], 0.2, 10, 'Only A beat Water; by less than matters.'],
    [[50, 56, 50], 1.2, 10, 'Only A beat Water; whether by as much as matters can’t be told.'],
    [[50, 80, 52], 0.2, 10, 'Both beat Water; only A by as much as matters; A came first.'],
    [[50, 52, 50], 0.2, null, 'Only A beat Water.'],
  ] as [[number, number, number], number, number | null, string][])(
    '%j ± %d, %s %%',
    (means, by, matters, said) => {
      expect(headline(found(means, by, matters).f, id).text).toBe(said);
    },
  );
  it('one over several isn’t said of itself alone', () => {
    const { f } = found([50, 80, 50], 0.5);
    const pair = (b: string, matters: boolean) => ({
      a: 'A',
      b,
      verdict: 'better' as const,
      ahead: 'A',
      matters,
    });
    expect(sayReservation(f, [pair('B', true), pair('C', false)], id)).toBe(
      '; not over all of them by as much as matters',
    );
    expect(sayReservation(f, [pair('B', true), pair('C', true)], id)).toBe('');
  });
  it('best value says so too, and best overall isn’t given', () => {
    const { f, p } = found([50, 52, 50], 0.2);
    const priced = {
      ...p,
      products: ['A', 'B'].map((x) => sold(x, 1000)),
      treatments: p.treatments.map((t, i) => ({
        ...t,
        products: i === 0 ? [] : [use({ productId: t.id as unknown as ProductId })],
      })),
    };
    expect(makeVerdict(priced, f, id).bestValue.text).toMatch(/ By less than matters\.$/);
    expect(makeVerdict(priced, found([50, 80, 50], 0.5).f, id).bestValue.text).not.toMatch(/matters/);
  });
});

describe('margins of counts lie on the scale they were set on', () => {
  const c: Contrast = {
    ...{ a: 'A', b: 'W', scale: 'ratio', estimate: 12 / 20.2, low: 0.4, high: 0.88, p: 0.01, percent: null },
    units: { estimate: -8.2, low: -13, high: -3.4 },
  };
  const summaries = ['A', 'W'].map((name) => ({
    ...{ name, n: 4, mean: 1, estimate: 1, low: null, high: null, sd: 1 },
    min: 1,
    max: 1,
  }));
  it('12 against 20.2 isn’t short by more than 10', () => {
    const verdict = (margin: number) => asGoodAs({ pairs: [c], summaries }, 'W', margin, true)[0]!.verdict;
    expect(verdict(10)).toBe('worse');
    expect(verdict(3)).toBe('short');
    // Turned round it is the other's gain.
    expect(asGoodAs({ pairs: [c], summaries }, 'A', 10, true)[0]!.verdict).toBe('better');
  });
  it('what is told apart by the ratio matters by the difference', () => {
    expect(pairOutcome(c, 3, true)).toMatchObject({ verdict: 'better', ahead: 'W', matters: true });
    expect(pairOutcome(c, 5, true)).toMatchObject({ matters: false });
    expect(pairOutcome(c, 14, true)).toMatchObject({ matters: false, tooSmall: true });
    expect(pairOutcome(c, 5, true).tooSmall).toBeUndefined();
  });
});

it('nobody leads where one that couldn’t be tested against some may be ahead', () => {
  const { f } = found([50, 50, 50], 1);
  const ranked = (b: number | null) => ({
    ...f,
    ranking: f.ranking.map((r) => ({ ...r, rank: r.name === 'B' ? b : r.name === 'A' ? 2 : 1 })),
  });
  expect(leaders(ranked(2))).toEqual(['Water']);
  expect(leaders(ranked(null))).toEqual([]);
});
