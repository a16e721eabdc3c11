// What the money says: each sentence with data that make it and data that don't.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { type CostSettings, noCosts } from '../model/judgement';
import type { ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { harvest, plan, sold, use } from '../testing/trial';
import { costsOf, sayCosts } from './costWords';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';

const names = ['Water', 'A', 'B'];
const base = plan({ treatments: names, replicates: 4 });
const withPrices = (a: number, b: number, currency = 'EUR'): Plan => ({
  ...base,
  products: [sold('a', a), sold('b', b, currency)],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    products: i === 0 ? [] : [use({ productId: (i === 1 ? 'a' : 'b') as ProductId, amount: 10 })],
  })),
});
const around = (m: number, by: number) => [-1.5, -0.5, 0.5, 1.5].map((x) => m + x * by);
function said(settings: Partial<CostSettings>, p = withPrices(1000, 4000), means = [50, 60, 62], by = 1) {
  const state = deriveState(p, harvest(Object.fromEntries(names.map((n, i) => [n, around(means[i]!, by)]))));
  const f = findingOf(state, p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  const verdict = makeVerdict(p, f.value, (id) => id, { state });
  const all = { ...noCosts, ...settings };
  return sayCosts(costsOf(state, verdict, all), all, verdict, f.value, (id) => id, p);
}

describe('what the money says', () => {
  it('until which price the best value stays the best', () => {
    // A: 10 for 10 g; B: 40 for 12 g. A costs as much a gram as B at 33.3: 3.3 times its price.
    expect(said({})).toEqual([
      'Each g more than Water took, with its 95 % interval: B 3.3 ct (2.8 ct to 4.2 ct) and A 1.0 ct (0.8 ct to 1.3 ct).',
      'A stays the best value until its products cost 3.3 times as much; then B is.',
    ]);
  });
  it('less for less, and less for more: what is saved, what is lost', () => {
    const dear = withPrices(1000, 4000);
    // The control costs 20 a tray: A (10) gives less for less, B (40) less for more.
    const paid = {
      ...dear,
      products: [...dear.products, sold('w', 2000)],
      treatments: dear.treatments.map((t, i) =>
        i === 0 ? { ...t, products: [use({ productId: 'w' as ProductId, amount: 10 })] } : t,
      ),
    };
    const less = said({}, paid, [60, 50, 40]);
    expect(less.find((x) => x.startsWith('A gives'))).toMatch(
      /^A gives less than Water for less money: €0\.100 saved a tray, 10\.0 g \(\d\.\d to 1\d\.\d\) lost\.$/,
    );
    expect(less.find((x) => x.startsWith('B gives'))).toMatch(
      /^B gives less than Water for more money: 20\.0 g \(1\d\.\d to 2\d\.\d\) less\.$/,
    );
    expect(said({}, paid, [50, 60, 62]).some((x) => x.includes('gives less'))).toBe(false);
    expect(said({}, paid, [50, 49, 51], 5).some((x) => x.includes('gives less'))).toBe(false);
  });
  it('nothing is said of a gain that wasn’t shown', () => {
    expect(said({}, withPrices(1000, 4000), [50, 60, 52], 5)).toEqual([]);
  });
  it('with all that is counted another may be the cheaper', () => {
    const lines = [{ id: 'd', name: 'dropper', minor: 1000, sharedBy: 1, seasons: 1, treatmentIds: ['A'] }];
    expect(said({ lines })).toContain('With all that is counted B gives each extra g for less than A.');
  });
  it('a dear start that pays for itself', () => {
    const lines = [{ id: 'd', name: 'doser', minor: 300, sharedBy: 1, seasons: 10, treatmentIds: ['A'] }];
    // Every time 10 against 40: 300 more at the start are back after ten times.
    expect(said({ lines })).toContain(
      'A has paid for what it costs more at the start than B after 10 times.',
    );
    expect(said({}).some((x) => x.includes('has paid'))).toBe(false);
  });
  it('what isn’t known, or is priced in another currency, is named', () => {
    expect(said({ kWhMinor: 30 })).toContain('A: electricity not known, so not in its sum.');
    expect(said({}, withPrices(1000, 4000, 'USD'))).toContain(
      'B: not priced in this trial’s currency, so not in the table.',
    );
    const undosed = { ...withPrices(1000, 4000) };
    undosed.treatments = undosed.treatments.map((t) => (t.name === 'B' ? { ...t, products: [] } : t));
    const lines = said({}, undosed);
    expect(lines).toContain('B isn’t in the table: No product and dose is written down for it.');
    expect(lines.join(' ')).not.toContain('currency');
  });
});
