// Whether a limit was kept: each sentence with data that make it and data that don't.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId } from '../model/ids';
import { type CostSettings, noCosts } from '../model/judgement';
import { entry, harvest, plan, sold, unitId, use } from '../testing/trial';
import { costsOf } from './costWords';
import { findingOf } from '../account/findingInput';
import { sayLimit } from './limitWords';
import { makeVerdict } from '../verdict/verdict';

const names = ['Water', 'A', 'B'];
const base = plan({ treatments: names, replicates: 4 });
/** A costs 10 cents a tray, B 40. */
const priced = {
  ...base,
  products: [sold('a', 1000), sold('b', 4000)],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    products: i === 0 ? [] : [use({ productId: (i === 1 ? 'a' : 'b') as ProductId, amount: 10 })],
  })),
};
const around = (m: number, by: number) => [-1.5, -0.5, 0.5, 1.5].map((x) => m + x * by);
/** Work on each tray of a contender, minutes; at 60 an hour a minute is a cent. */
const work = (of: Record<string, number[]>) =>
  Object.entries(of).flatMap(([name, minutes]) =>
    minutes.map((m, i) => entry({ kind: 'work', task: 'Feeding', minutes: m, unitIds: [unitId(name, i)] })),
  );
interface Given {
  minutes?: Record<string, number[]>;
  means?: number[];
  by?: number;
  trait?: object;
}
function said(
  settings: Partial<CostSettings>,
  { minutes = {}, means = [50, 60, 62], by = 1, trait = {} }: Given = {},
) {
  const p = { ...priced, traits: priced.traits.map((t) => ({ ...t, ...trait })) };
  const state = deriveState(p, [
    ...harvest(Object.fromEntries(names.map((n, i) => [n, around(means[i]!, by)]))),
    ...work(minutes),
  ]);
  const f = findingOf(state, p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  const verdict = makeVerdict(p, f.value, (id) => id, { state });
  const all = { ...noCosts, hourMinor: 60, ...settings };
  return sayLimit(costsOf(state, verdict, all), all, p, f.value, (id) => id);
}

describe('a limit for a unit', () => {
  it('nothing is said without one', () => {
    expect(said({})).toEqual([]);
  });
  it('sums without a spread are said to have none', () => {
    expect(said({ limitMinor: 30 })).toEqual([
      'Under the limit of €0.300 a tray, as one sum for all, without a spread: A €0.100 and Water €0.00.',
      'Over the limit of €0.300 a tray, as one sum for all, without a spread: B €0.400.',
    ]);
    expect(said({ limitMinor: 50 }).join(' ')).not.toContain('Over the limit');
  });
  it('where units took more or less, the whole interval has to lie on one side', () => {
    const minutes = { Water: [1, 1, 1, 1], A: [18, 20, 22, 20], B: [18, 20, 22, 20] };
    const lines = said({ limitMinor: 31, workAsLogged: true }, { minutes });
    // A: 10 + 20 = 30, standard error 0.816, ± 2.60: the limit of 31 lies within. B: 60.
    expect(lines).toContain(
      'Can’t be told against the limit of €0.310 a tray, which lies within the 95 % interval: A €0.300 (€0.274 to €0.326).',
    );
    expect(lines).toContain(
      'Over the limit of €0.310 a tray with the whole 95 % interval: B €0.600 (€0.574 to €0.626).',
    );
    expect(lines).toContain(
      'The interval is of work as it differed from tray to tray; prices are taken as they stand.',
    );
    const wide = said({ limitMinor: 40, workAsLogged: true }, { minutes });
    expect(wide).toContain(
      'Under the limit of €0.400 a tray with the whole 95 % interval: A €0.300 (€0.274 to €0.326).',
    );
    expect(wide.join(' ')).not.toContain('Can’t be told');
  });
});

describe('a limit for a gram', () => {
  it('goes by the interval of the result', () => {
    // B: 40 cents for 62 g, 0.65 cents a gram; A 0.17.
    const lines = said({ limitMinor: 0.4, limitFor: 'result' });
    expect(lines[0]).toMatch(
      /^Under the limit of €0\.00400 for each g with the whole 95 % interval: A €0\.00167 .* and Water €0\.00\.$/,
    );
    expect(lines[1]).toMatch(
      /^Over the limit of €0\.00400 for each g with the whole 95 % interval: B €0\.00645/,
    );
    expect(lines).toContain('The interval is that of the result; what was spent is taken as it stands.');
  });
  it('for each gram more it goes by the gain, and says nothing of one that wasn’t shown', () => {
    // A: 10 cents for 10 g more; B: 40 for 12.
    expect(said({ limitMinor: 1.05, limitFor: 'extra' }).join(' ')).toMatch(
      /Over the limit of €0\.0105 for each g more than Water with the whole 95 % interval: B €0\.0333 .*Can’t be told against the limit of €0\.0105 .*: A €0\.0100 /,
    );
    const none = said({ limitMinor: 1.05, limitFor: 'extra' }, { means: [50, 60, 52], by: 3 });
    expect(none).toContain('B: no gain was shown, so no limit for each g more can be said to be kept.');
    expect(none.join(' ')).not.toMatch(/B €/);
  });
  it('means nothing for a trait of which more isn’t better', () => {
    expect(said({ limitMinor: 1, limitFor: 'result' }, { trait: { direction: 'lower' } })).toEqual([
      'A limit for each g of Cut weight means nothing: it isn’t an amount of which more is better.',
    ]);
  });
  it('is for a gram of the tray, also where figures are per plant', () => {
    const five = priced.treatments.map((t) => ({ ...t, conditions: { ...t.conditions, plantsPerUnit: 5 } }));
    const state = deriveState(
      { ...priced, treatments: five, traits: priced.traits.map((t) => ({ ...t, per: 'plant' as const })) },
      harvest(Object.fromEntries(names.map((n, i) => [n, around([50, 60, 62][i]!, 1)]))),
    );
    const f = findingOf(state, state.plan.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    const verdict = makeVerdict(state.plan, f.value, (id) => id, { state });
    const settings: CostSettings = { ...noCosts, limitMinor: 1, limitFor: 'result' };
    // 10 cents for 60 g in a tray: 0.17 a gram, not 0.83 as it were per plant.
    expect(
      sayLimit(costsOf(state, verdict, settings), settings, state.plan, f.value, (id) => id)[0],
    ).toContain('A €0.00167');
  });
  it('a contender without a figure is named', () => {
    const state = deriveState(priced, harvest({ Water: around(50, 1), A: around(60, 1) }));
    const f = findingOf(state, priced.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    const verdict = makeVerdict(priced, f.value, (id) => id, { state });
    const settings: CostSettings = { ...noCosts, limitMinor: 1, limitFor: 'result' };
    expect(sayLimit(costsOf(state, verdict, settings), settings, priced, f.value, (id) => id)).toContain(
      'B: no figure to hold against the limit.',
    );
  });
});
