// Claims: each verdict with data that make it and data that don't. Clopper–Pearson against R's binom.test.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { SetClaim } from '../model/judgement';
import type { ProductId, RoundId, TraitId } from '../model/ids';
import type { Plan } from '../model/plan';
import { clopperPearson } from '../stats/clopperPearson';
import { startR } from '../testing/r';
import { entry, harvest, height, heightTrait, plan, product, trait, unitId, use } from '../testing/trial';
import { claimedRounds, judgeClaims } from './claims';
import { findingOf } from '../account/findingInput';

const r = await startR();

const claim = { id: 'k', text: 'Up to a quarter more' };
const base = plan({ treatments: ['Water', 'A'], replicates: 6 });
const claimed: Plan = {
  ...base,
  products: [product({ claims: [claim] })],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    products: i === 0 ? [] : [use({ productId: 'feed' as ProductId })],
  })),
};
const set: SetClaim = {
  ...{ claimId: 'k', productId: 'feed', treatmentId: 'A', traitId: 'weight' },
  ...{ direction: 'more', percent: 25, upTo: false, absolute: false },
};
const around = (m: number, by: number) => [-2.5, -1.5, -0.5, 0.5, 1.5, 2.5].map((x) => m + x * by);
const judged = (means: [number, number], over: Partial<SetClaim> = {}, by = 1) => {
  const f = findingOf(
    deriveState(claimed, harvest({ Water: around(means[0], by), A: around(means[1], by) })),
    claimed.traits[0]!,
  );
  if (!f.ok) throw new Error(f.error.tag);
  return judgeClaims(claimed, [{ ...set, ...over }], [f.value], (id) => id)[0]!;
};

describe('“a quarter more”', () => {
  it.each([
    [[40, 60], {}, 1, 'borneOut', /reached even at the low end/],
    [[40, 51], {}, 1, 'borneOut', /reached by what was seen, not at the low end/],
    [[40, 45], {}, 1, 'inPart', /the size is ruled out/],
    [[40, 49], {}, 1, 'inPart', /not reached, though not ruled out/],
    [[40, 40], {}, 1, 'notShown', /no change was shown\. The size claimed is ruled out/],
    [[40, 44], {}, 6, 'notShown', /no change was shown\.$/],
    [[40, 30], {}, 1, 'contradicted', /the other way round/],
    [[40, 30], { direction: 'less', percent: 20 }, 1, 'borneOut', /claimed 20 % less/],
    [[40, 45], { percent: null }, 1, 'borneOut', /^Cut weight against Water: \+1\d % /],
    [[40, 45], { upTo: true }, 1, 'inPart', /“Up to” promises nothing below it/],
    [[40, 45], { traitId: null }, 1, 'notTested', /Nothing measured here bears on it/],
    [[40, 45], { treatmentId: 'Water' }, 1, 'notTested', /the control itself/],
  ] as [[number, number], Partial<SetClaim>, number, string, RegExp][])(
    '%j %j',
    (means, over, by, verdict, said) => {
      const j = judged(means, over, by);
      expect(j.verdict).toBe(verdict);
      expect(j.text).toMatch(said);
    },
  );
  it('is held against another contender where the label names one', () => {
    const p = plan({ treatments: ['Water', 'A', 'B'], replicates: 6 });
    const three = { ...p, products: claimed.products, treatments: p.treatments.map((t) => ({ ...t, products: t.name === 'A' ? [use({ productId: 'feed' as ProductId })] : [] })) }; // prettier-ignore
    const values = { Water: around(40, 1), A: around(52, 1), B: around(51, 1) };
    const f = findingOf(deriveState(three, harvest(values)), three.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    const of = (over: Partial<SetClaim>) =>
      judgeClaims(three, [{ ...set, ...over }], [f.value], (id) => id)[0]!;
    expect(of({}).verdict).toBe('borneOut');
    expect(of({ againstId: 'B' })).toMatchObject({
      verdict: 'notShown',
      text: expect.stringMatching(/^Cut weight against B: /),
    });
    expect(of({ againstId: 'A' }).text).toBe('It is held against itself.');
  });
  it('is judged at the round the label names, and not before it has values', () => {
    const tall = heightTrait();
    const p = plan({ treatments: ['Water', 'A'], replicates: 6, traits: [tall] });
    const taken = (round: string, water: number, a: number) =>
      (['Water', 'A'] as const).flatMap((t, i) =>
        around(i === 0 ? water : a, 0.4).map((cm, r) => entry(height(unitId(t, r), cm, round))),
      );
    const dated: Plan = { ...p, products: claimed.products, treatments: claimed.treatments };
    const state = deriveState(dated, [...taken('r1', 10, 10.1), ...taken('r2', 20, 30)]);
    const own = { ...set, traitId: 'height' };
    const rounds = claimedRounds(dated, [own, { ...own, roundId: 'r1' }, { ...own, roundId: 'gone' }]);
    expect(rounds.map((r) => r.roundId)).toEqual(['r1']);
    const made = [undefined, 'r1' as RoundId].map((roundId) => {
      const f = findingOf(state, tall, roundId ? { roundId } : {});
      if (!f.ok) throw new Error(f.error.tag);
      return f.value;
    });
    const of = (over: Partial<SetClaim>, at: typeof made = [made[1]!]) =>
      judgeClaims(dated, [{ ...own, ...over }], [made[0]!], (id) => id, at)[0]!;
    expect(of({}).verdict).toBe('borneOut');
    expect(of({ roundId: 'r1' })).toMatchObject({
      verdict: 'notShown',
      text: expect.stringMatching(/^By First, day 3\. Height against Water: /),
    });
    expect(of({ roundId: 'r1' }, [])).toMatchObject({
      verdict: 'notTested',
      text: 'Height has no finding at First yet.',
    });
  });
  it('one that isn’t set is not tested', () => {
    expect(judgeClaims(claimed, [], [], (id) => id)[0]!.verdict).toBe('notTested');
  });
});

describe('“99 % germinate”', () => {
  const up = trait({
    id: 'up' as TraitId,
    name: 'Up',
    kind: 'ratio',
    unit: '%',
    outOf: 50,
    decimals: 0,
    summary: 'last',
  });
  const share = (k: number, percent: number) => {
    const p: Plan = {
      ...claimed,
      traits: [up],
      primaryTraitId: up.id,
      rounds: claimed.rounds.map((x) => ({ ...x, traitIds: [up.id] })),
    };
    const log = ['Water', 'A'].flatMap((t) =>
      [0, 1, 2, 3, 4, 5].map((i) =>
        entry({
          kind: 'measurement',
          unitId: unitId(t, i),
          traitId: up.id,
          roundId: 'r2',
          sample: null,
          value: k,
        }),
      ),
    );
    const f = findingOf(deriveState(p, log), up);
    if (!f.ok) throw new Error(f.error.tag);
    return judgeClaims(p, [{ ...set, traitId: 'up', percent, absolute: true }], [f.value], (id) => id)[0]!;
  };
  it.each([
    [
      40,
      99,
      'contradicted',
      /240\/300 counted, 80\.0 % \(75\.0 to 84\.4 %, exact binomial\) against 99 %: what was counted rules it out/,
    ],
    [50, 98, 'borneOut', /300\/300/],
    [49, 97, 'notShown', /too few were counted to bear it out/],
  ])('%i of 50 in each of six against %i %%', (k, percent, verdict, said) => {
    const j = share(k, percent);
    expect(j.verdict).toBe(verdict);
    expect(j.text).toMatch(said);
  });
  it.each([
    [0, 20],
    [7, 20],
    [240, 300],
    [20, 20],
  ])('%i of %i: limits are those of binom.test', async (k, n) => {
    const [low, high] = await r.numbers(`binom.test(${k}, ${n})$conf.int`);
    expect(clopperPearson(k, n, 0.05).low).toBeCloseTo(low!, 9);
    expect(clopperPearson(k, n, 0.05).high).toBeCloseTo(high!, 9);
  });
});
