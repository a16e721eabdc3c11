// Prices elsewhere by plain arithmetic: A gives 10 g more for 10 a litre, B 12 g more for 40 a litre, 10 mL each.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { PackId, ProductId } from '../model/ids';
import type { PriceSet } from '../model/judgement';
import { harvest, plan, product, use } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { bestValueElsewhere, sayElsewhere, withPriceSet } from './priceSets';
import { makeVerdict } from './verdict';

const names = ['Water', 'A', 'B'];
const pack = (id: string, size: number, priceMinor: number) => ({ id: id as PackId, size, unit: 'L' as const, priceMinor, currency: 'EUR', boughtOn: null, count: 1 }); // prettier-ignore
const base = plan({ treatments: names, replicates: 4 });
const priced = {
  ...base,
  products: [
    product({ id: 'a' as ProductId, packs: [pack('a1', 1, 1000), pack('a5', 5, 4000)] }),
    product({ id: 'b' as ProductId, packs: [pack('b1', 1, 4000)] }),
  ],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    products:
      i === 0 ? [] : [use({ productId: (i === 1 ? 'a' : 'b') as ProductId, packId: null, amount: 10 })],
  })),
};
const values = { Water: 50, A: 60, B: 62 };
const state = deriveState(
  priced,
  harvest(
    Object.fromEntries(Object.entries(values).map(([n, m]) => [n, [-1, -0.4, 0.4, 1].map((x) => m + x)])),
  ),
);
const found = findingOf(state, priced.traits[0]!);
if (!found.ok) throw new Error(found.error.tag);
const here = makeVerdict(priced, found.value, (id) => id, { state });
const set = (prices: Record<string, number>, over: Partial<PriceSet> = {}): PriceSet => ({
  ...{ id: 's', name: 'abroad', seenOn: null },
  prices,
  ...over,
});
const elsewhere = (...sets: PriceSet[]) => bestValueElsewhere(state, found.value, here, sets, (id) => id);

describe('prices elsewhere', () => {
  it('all packs of a product cost as much more as its first; others stay', () => {
    const [a, b] = withPriceSet(priced, set({ a: 500 })).products;
    expect(a!.packs.map((p) => p.priceMinor)).toEqual([500, 2000]);
    expect(b).toEqual(priced.products[1]);
  });
  it('half the price for B isn’t enough to turn the best value, a quarter is', () => {
    expect(here.bestValue.treatmentId).toBe('A');
    const [half, quarter] = elsewhere(set({ b: 2000 }), set({ b: 1000 }));
    expect([half!.bestValue.treatmentId, half!.turns]).toEqual(['A', false]);
    expect([quarter!.bestValue.treatmentId, quarter!.turns]).toEqual(['B', true]);
  });
  it('is said with the place and the day; nothing is said of a set without prices', () => {
    const [same, other, none] = sayElsewhere(
      elsewhere(set({ b: 3000 }), set({ b: 900 }, { seenOn: '2026-05-01' }), set({})),
    );
    expect(same).toMatch(/^With the prices of abroad the best value is the same\. A: /);
    expect(other).toMatch(/^With the prices of abroad \(seen 2026-05-01\) the best value is another\. B: /);
    expect(none).toBe('No prices are known for abroad yet.');
  });
  it('prices in another currency are turned by the plan’s rate, and aren’t compared without one', () => {
    // 10 dollars at 0.9 for B: 9 euros a litre, as in the set above
    const dollars = set({ b: 1000 }, { currency: 'USD' });
    const rated = { ...priced, mixing: { ...priced.mixing, exchange: [{ currency: 'USD', rate: 0.9 }] } };
    const [with90] = bestValueElsewhere({ ...state, plan: rated }, found.value, here, [dollars], (id) => id);
    expect([with90!.rateMissing, with90!.bestValue.treatmentId]).toEqual([false, 'B']);
    const [without] = elsewhere(dollars);
    expect(without!.rateMissing).toBe(true);
    expect(sayElsewhere([without!])).toEqual([
      'The prices of abroad are in USD: give the rate in Mixing, under Set-up, and they are compared.',
    ]);
  });
});
