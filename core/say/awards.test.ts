// Awards: each with data that earn it and data that don't.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { entry, harvest, plan, product, unitId, use } from '../testing/trial';
import { awards } from './awards';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';

const names = ['Water', 'A', 'B'];
const base = plan({ treatments: names, replicates: 6 });
const priced: Plan = {
  ...base,
  smallestDifference: { kind: 'absolute', value: 5 },
  products: [product()],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    products: i === 0 ? [] : [use({ productId: 'feed' as ProductId, amount: 5 * i })],
  })),
};
const around = (m: number, by = 1) => [0.5, -2.5, 1.5, -0.5, 2.5, -1.5].map((x) => m + x * by);
const given = (
  means: number[],
  by: number[] = [1, 1, 1],
  expected: (number | null)[] = [null, null, null],
) => {
  const p = {
    ...priced,
    treatments: priced.treatments.map((t, i) => ({ ...t, expectedPercent: expected[i]! })),
  };
  const state = deriveState(
    p,
    harvest(Object.fromEntries(names.map((n, i) => [n, around(means[i]!, by[i])]))),
  );
  const f = findingOf(state, p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  return awards(
    p,
    f.value,
    makeVerdict(p, f.value, (id) => id, { state }),
    (id) => id,
  );
};
const to = (list: ReturnType<typeof given>, id: string) => list.find((a) => a.id === id)?.to ?? null;

describe('awards', () => {
  it('best overall needs to be clear of every other', () => {
    expect(to(given([50, 60, 80]), 'bestOverall')).toEqual(['B']);
    expect(to(given([50, 79.5, 80]), 'bestOverall')).toBeNull();
    expect(to(given([80, 60, 50]), 'bestOverall')).toBeNull();
  });
  it('nobody is best overall where the control died; where another did, of those that have figures', () => {
    const p = base;
    const said = (gone: string) => {
      const left = Object.entries({ Water: 50, A: 60, B: 80 }).filter(([n]) => n !== gone);
      const died = (gone === 'nobody' ? [] : [0, 1, 2, 3, 4, 5]).map((i) =>
        entry({ kind: 'death', unitId: unitId(gone, i), sample: null, cause: 'dried out' }),
      );
      const state = deriveState(p, [...harvest(Object.fromEntries(left.map(([n, m]) => [n, around(m, 1)]))), ...died]); // prettier-ignore
      const f = findingOf(state, p.traits[0]!);
      if (!f.ok) throw new Error(f.error.tag);
      const verdict = makeVerdict(p, f.value, (id) => id, { state });
      return awards(p, f.value, verdict, (id) => id).find((a) => a.id === 'bestOverall')?.text ?? null;
    };
    expect(said('Water')).toBeNull();
    expect(said('A')).toBe('B: clearly ahead of every other that has a figure in cut weight.');
    expect(said('nobody')).toBe('B: clearly ahead of every other in cut weight.');
  });
  it('best value goes to what earned its price, never to the control', () => {
    expect(to(given([50, 70, 71]), 'bestValue')).toEqual(['A']);
    expect(to(given([50, 50, 50]), 'bestValue')).toBeNull();
  });
  it('no better than water needs an interval without room for what matters', () => {
    expect(to(given([50, 50.2, 70]), 'noBetter')).toEqual(['A']);
    expect(to(given([50, 50.2, 70], [6, 6, 6]), 'noBetter')).toBeNull();
  });
  it('worse than nothing', () => {
    const list = given([50, 40, 52]);
    expect(to(list, 'worse')).toEqual(['A']);
    expect(list.find((a) => a.id === 'worse')!.title).toBe('Worse than nothing');
    expect(to(given([50, 52, 52]), 'worse')).toBeNull();
  });
  it('evenest where spreads differ by more than chance', () => {
    expect(to(given([50, 60, 62], [1, 8, 0.4]), 'evenest')).toEqual(['B']);
    expect(to(given([50, 60, 62]), 'evenest')).toBeNull();
  });
  it('a disappointment lies wholly below what was expected', () => {
    const list = given([50, 52, 70], [1, 1, 1], [null, 60, 30]);
    expect(to(list, 'disappointment')).toEqual(['A']);
    expect(list.find((a) => a.id === 'disappointment')!.text).toMatch(/^A: 60 % were expected, 4 % seen/);
    expect(to(given([50, 52, 70], [1, 1, 1], [null, 5, 30]), 'disappointment')).toBeNull();
  });
  it('none without a spread to go by', () => {
    expect(given([50, 60, 80], [0, 0, 0])).toEqual([]);
  });
});
