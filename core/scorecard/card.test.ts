// The scorecard: points by hand, sentences with data that make them and data that don't.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { CardHeading } from '../model/judgement';
import type { PackId, ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { entry, harvest, plan, product, unitId, use } from '../testing/trial';
import { makeCard, presets, proposedHeadings } from './card';
import { sayAlone, sayCard, sayFlips } from '../say/cardWords';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';

const names = ['Water', 'A', 'B'];
const base = plan({ treatments: names, replicates: 4 });
const pack = (priceMinor: number) => [
  {
    id: 'pack' as PackId,
    size: 1,
    unit: 'L' as const,
    priceMinor,
    currency: 'EUR',
    boughtOn: null,
    count: 1,
  },
];
const priced: Plan = {
  ...base,
  products: [
    product({ id: 'a' as ProductId, packs: pack(1000) }),
    product({ id: 'b' as ProductId, packs: pack(4000) }),
  ],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    products: i === 0 ? [] : [use({ productId: (i === 1 ? 'a' : 'b') as ProductId, amount: 10 })],
  })),
};
const around = (m: number, by: number) => [-1.5, -0.5, 0.5, 1.5].map((x) => m + x * by);
const cardOf = (
  headings: CardHeading[],
  means: number[],
  by: number,
  over: Partial<Plan> = {},
  extra: object[] = [],
) => {
  const p = { ...priced, ...over };
  const values = Object.fromEntries(names.map((n, i) => [n, around(means[i]!, by)]));
  const state = deriveState(p, [...harvest(values), ...(extra as never[])]);
  const f = findingOf(state, p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  const verdict = makeVerdict(p, f.value, (id) => id, { state });
  return makeCard({ plan: p, headings, findings: [f.value], lines: verdict.lines, nameOf: (id) => id });
};
const yieldOf = (weight: number, scale?: CardHeading['scale']): CardHeading => ({
  ...{ id: 'y', name: 'Yield', weight, from: { kind: 'trait', traitId: 'weight' } },
  ...(scale && { scale }),
});
const cost = (weight: number): CardHeading => ({ id: 'c', name: 'Low cost', weight, from: { kind: 'cost' } });
const own = (weight: number, points: Record<string, number>): CardHeading => ({
  ...{ id: 'o', name: 'Ease', weight },
  from: {
    kind: 'own',
    points: Object.fromEntries(
      Object.entries(points).map(([id, p]) => [id, { points: p, reason: 'because' }]),
    ),
  },
});
const id = (x: string) => x;

describe('points', () => {
  it('the control is 0, the best is 10, in between in proportion', () => {
    const card = cardOf([yieldOf(1)], [50, 60, 70], 1);
    expect(names.map((n) => card.rows[0]!.cells.get(n)!.points)).toEqual([0, 5, 10]);
    expect(card.rows[0]!.rule).toBe('Water is 0, the best is 10');
  });
  it('where the control is the best itself, the worst is 0', () => {
    const card = cardOf([yieldOf(1)], [70, 60, 50], 1);
    expect(names.map((n) => card.rows[0]!.cells.get(n)!.points)).toEqual([10, 5, 0]);
    expect(card.rows[0]!.rule).toBe('the worst is 0, the best is 10');
  });
  it('a written scale, also one that runs down; nothing outside 0 to 10', () => {
    const up = cardOf([yieldOf(1, { zero: 40, ten: 60 })], [50, 60, 70], 1);
    expect(names.map((n) => up.rows[0]!.cells.get(n)!.points)).toEqual([5, 10, 10]);
    const down = cardOf([yieldOf(1, { zero: 70, ten: 50 })], [50, 60, 70], 1);
    expect(names.map((n) => down.rows[0]!.cells.get(n)!.points)).toEqual([10, 5, 0]);
  });
  it('cost: the cheapest is best, and what it costs is said', () => {
    const row = cardOf([cost(1)], [50, 60, 70], 1).rows[0]!;
    // 10 mL of a litre at 10 and at 40 a litre: 0, 0.10 and 0.40.
    expect(names.map((n) => row.cells.get(n)!.points)).toEqual([10, 7.5, 0]);
    expect(row.cells.get('B')!.said).toBe('€0.400');
  });
  it('a contender that died has its reason in place of points, and no total', () => {
    const dead = names.flatMap((n) =>
      n === 'B'
        ? [0, 1, 2, 3].map((r) =>
            entry({ kind: 'death', unitId: unitId('B', r), sample: null, cause: 'rot' }),
          )
        : [],
    );
    const p = { ...priced };
    const state = deriveState(p, [...harvest({ Water: around(50, 1), A: around(60, 1) }), ...dead]);
    const f = findingOf(state, p.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    const verdict = makeVerdict(p, f.value, id, { state });
    const card = makeCard({
      plan: p,
      headings: [yieldOf(1)],
      findings: [f.value],
      lines: verdict.lines,
      nameOf: id,
    });
    expect(card.rows[0]!.cells.get('B')).toMatchObject({ points: null, said: 'died' });
    expect(card.open).toContain('B has no total: Yield, died.');
    expect(card.contenders.find((c) => c.id === 'B')!.score).toBeNull();
  });
});

describe('who is first', () => {
  it('a clear lead is sure, two of a kind share it', () => {
    const clear = cardOf([yieldOf(1)], [50, 60, 90], 1);
    expect(sayCard(clear, id)).toBe('B comes first, by its own finding.');
    const close = cardOf([yieldOf(1)], [50, 69.9, 70], 4);
    const [a, b] = ['A', 'B'].map((n) => close.contenders.find((c) => c.id === n)!.firstOf100!);
    expect(Math.abs(a! - b!)).toBeLessThan(25);
    expect(sayCard(close, id)).toMatch(/^(A and B|B and A): neither is told to be better than the other\.$/);
  });
  it('where no spread was seen the lead isn’t called sure', () => {
    const card = cardOf([yieldOf(1)], [50, 60, 90], 0);
    expect(card.contenders.every((c) => c.firstOf100 === null)).toBe(true);
    expect(sayCard(card, id)).toBe('Not all could be tested: who comes first can’t be told.');
    expect(card.open).toContain(
      'How sure the first place is can’t be said: Yield has no spread to draw from.',
    );
  });
  it('level ones are named together', () => {
    expect(sayCard(cardOf([own(1, { Water: 5, A: 8, B: 8 })], [50, 60, 70], 1), id)).toBe(
      'A and B are level at 8.0 points.',
    );
  });
  it('what turns it, and who takes what alone', () => {
    const card = cardOf([yieldOf(50), cost(50)], [50, 66, 70], 1);
    // Yield: 0, 8, 10; cost: 10, 7.5, 0. A leads with 7.75; Water draws level where 10(1 − w) = 8w + 7.5(1 − w): w = 5/21,
    // nearer than B above 15/19.
    expect(sayFlips(card, id)[0]).toBe('Yield below 24 %: Water.');
    expect(sayAlone(card, id)).toEqual([
      'Who counts yield alone takes B.',
      'Who counts low cost alone takes Water.',
    ]);
    expect(sayFlips(cardOf([yieldOf(50)], [50, 66, 70], 1), id)).toEqual([]);
  });
  it('nothing is weighed without weights, or without figures', () => {
    const none = cardOf([yieldOf(0)], [50, 60, 70], 1);
    expect(sayCard(none, id)).toBe('Give the headings weights to see who comes first.');
    const gone = cardOf(
      [{ id: 'x', name: 'Taste', weight: 1, from: { kind: 'trait', traitId: 'nowhere' } }],
      [50, 60, 70],
      1,
    );
    expect(gone.open[0]).toBe('Taste: there are no figures for it yet.');
  });
});

it('a new card has the deciding trait, its evenness and cost; presets weigh them', () => {
  const found = (replicates: number) => {
    const p = {
      ...plan({ treatments: names, replicates }),
      products: priced.products,
      treatments: priced.treatments,
    };
    const values = Object.fromEntries(names.map((n) => [n, around(50, 1).slice(0, replicates)]));
    const f = findingOf(deriveState(p, harvest(values)), p.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    return f.value;
  };
  const proposed = proposedHeadings(priced, found(4));
  // With two units each there is no evenness to speak of: no heading without figures.
  expect(proposedHeadings(priced, found(2)).map((h) => h.name)).toEqual(['Cut weight', 'Low cost']);
  expect(proposed.map((h) => h.name)).toEqual(['Cut weight', 'Evenness', 'Low cost']);
  expect(proposed.map((h) => presets.saver!(h))).toEqual([25, 5, 65]);
});

it('a heading without figures has no part in weights or turning points', () => {
  const nowhere: CardHeading = {
    id: 'x',
    name: 'Taste',
    weight: 50,
    from: { kind: 'trait', traitId: 'nowhere' },
  };
  const without = cardOf([yieldOf(50), cost(50)], [50, 60, 70], 1);
  const withIt = cardOf([nowhere, yieldOf(50), cost(50)], [50, 60, 70], 1);
  expect(withIt.rows.map((r) => r.sharePercent)).toEqual([50, 50]);
  expect(withIt.flips).toEqual(without.flips);
  // What a flip calls the weight now is what the slider shows.
  withIt.flips.forEach((f, i) => expect(Math.round(100 * f.weightNow)).toBe(withIt.rows[i]!.sharePercent));
});
it('two units each: draws are Student’s t, so a lead of one spread isn’t first in nearly all', () => {
  const p = { ...plan({ treatments: ['A', 'B'], replicates: 2 }), peers: true as const };
  const equal = { ...p, treatments: p.treatments.map((t) => ({ ...t, role: 'test' as const })) };
  const state = deriveState(equal, harvest({ A: [50, 52], B: [54, 56] }));
  const f = findingOf(state, p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  const headings = [yieldOf(50), own(1, { A: 5, B: 5 })];
  const card = makeCard({ plan: equal, headings, findings: [f.value], lines: [], nameOf: (id) => id });
  const first = card.contenders.find((c) => c.id === 'B')!.firstOf100!;
  // t = 2.83 on 2 degrees of freedom: P(T > −2.83) = 0.947 (R: pt(2.828, 2)); by the normal curve it would be 0.998.
  expect(first).toBeGreaterThan(90);
  expect(first).toBeLessThan(97);
});
