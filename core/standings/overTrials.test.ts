// Standings over trials; the pooling itself is held against R's likelihood in core/stats/networkMeta.reference.test.ts.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId, TrialId } from '../model/ids';
import type { Plan } from '../model/plan';
import { harvest, plan, product, use } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { NOTHING, type StandingTrial, sayStandings, standingsOf } from './overTrials';

const around = (m: number, by = 1) => [-1.5, -0.5, 0.5, 1.5].map((x) => m + x * by);
function trialOf(id: string, arms: Record<string, number>, by = 1): StandingTrial {
  const names = Object.keys(arms);
  const base = plan({ treatments: names, replicates: 4 });
  const p: Plan = {
    ...base,
    id: id as TrialId,
    question: `Trial ${id}`,
    products: names.filter((n) => n !== 'Water').map((n) => product({ id: n as ProductId, name: n })),
    treatments: base.treatments.map((t) => ({
      ...t,
      role: t.name === 'Water' ? 'untreated' : t.role === 'untreated' ? 'reference' : t.role,
      products: t.name === 'Water' ? [] : [use({ productId: t.name.replace(/'$/, '') as ProductId })],
    })),
  };
  const f = findingOf(
    deriveState(p, harvest(Object.fromEntries(names.map((n) => [n, around(arms[n]!, by)])))),
    p.traits[0]!,
  );
  if (!f.ok) throw new Error(f.error.tag);
  return { id, title: p.question, crop: 'cress', plan: p, finding: f.value, faults: [] };
}

describe('standings', () => {
  it('one trial alone says no more than its own finding', () => {
    // Two units each, 50 and 53 against 55 and 57: t = 3 / 1.8 on 2 degrees of freedom; by the normal curve it is “above”.
    const base = plan({ treatments: ['Water', 'Bosco'], replicates: 2 });
    const p: Plan = {
      ...base,
      products: [product({ id: 'Bosco' as ProductId, name: 'Bosco' })],
      treatments: base.treatments.map((t) => ({
        ...t,
        products: t.name === 'Water' ? [] : [use({ productId: 'Bosco' as ProductId })],
      })),
    };
    const f = findingOf(deriveState(p, harvest({ Water: [50, 53], Bosco: [55, 57] })), p.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    expect(f.value.outcomes[0]!.verdict).not.toBe('better');
    const s = standingsOf([{ id: '9', title: 'x', crop: 'cress', plan: p, finding: f.value, faults: [] }]);
    expect(s.meta!.products.find((x) => x.name === 'Bosco')!.low).toBeLessThan(0);
    expect(sayStandings(s)[0]).toBe('Bosco: can’t be told from nothing added.');
  });
  it('a trial of equals joins the network', () => {
    const made = trialOf('7', { Bosco: 60, Rivo: 59 }, 3);
    const equals = { ...made, finding: { ...made.finding, peers: true, against: [] } };
    expect(standingsOf([trialOf('1', { Water: 50, Bosco: 60 }), equals]).pooled).toHaveLength(2);
  });
  const one = trialOf('1', { Water: 50, Bosco: 60 });
  const two = trialOf('2', { Water: 40, Bosco: 47, Prato: 52 });
  it('pools by product, nothing added as the reference', () => {
    const s = standingsOf([one, two]);
    expect(s.reference).toBe(NOTHING);
    expect(s.meta!.products.map((p) => [p.name, p.trials])).toEqual([
      [NOTHING, 2],
      ['Bosco', 2],
      ['Prato', 1],
    ]);
    expect(s.meta!.products[1]!.percent).toBeGreaterThan(15);
    expect(s.edges).toContainEqual({ a: NOTHING, b: 'Bosco', trials: 2 });
    const said = sayStandings(s);
    expect(said[0]).toBe('Bosco and Prato are above nothing added over 2 trials.');
    // What to test next is the season’s to say.
    expect(said.join(' ')).not.toMatch(/next trial/);
  });
  it('what never stood beside the reference goes by way of others, and that is said', () => {
    const s = sayStandings(standingsOf([one, trialOf('3', { Bosco: 60, Rivo: 59 }, 3)]));
    expect(s).toContainEqual(expect.stringMatching(/^Rivo never stood beside nothing added/));
    expect(sayStandings(standingsOf([one, two])).some((x) => x.includes('never stood'))).toBe(false);
  });
  it('no path: named, not ranked', () => {
    const s = standingsOf([one, trialOf('4', { Rivo: 60, Monte: 70 })]);
    expect(s.apart).toEqual(['Rivo', 'Monte']);
    expect(s.meta!.products.map((p) => p.name)).toEqual([NOTHING, 'Bosco']);
    expect(sayStandings(s)).toContain(
      'Rivo and Monte: no path of trials to nothing added, so not ranked against it.',
    );
  });
  it('one trial, no spread, a product twice', () => {
    expect(sayStandings(standingsOf([one]))).toContain(
      'One trial says nothing of how a product does elsewhere.',
    );
    const level = trialOf('5', { Water: 50, Bosco: 60 }, 0);
    expect(standingsOf([level]).notPooled[0]!.why).toBe('no spread was seen between units');
    const twice = trialOf('6', { Water: 50, Bosco: 60, "Bosco'": 70 });
    expect(standingsOf([twice]).notPooled[0]!.why).toMatch(/^Bosco stands in it twice/);
    expect(sayStandings(standingsOf([]))[0]).toMatch(/^Nothing can be pooled yet/);
  });
  it('a trial the other way round makes the effects vary', () => {
    const said = sayStandings(
      standingsOf([one, trialOf('7', { Water: 50, Bosco: 40 }), trialOf('8', { Water: 50, Bosco: 65 })]),
    );
    expect(said).toContainEqual(
      expect.stringMatching(/^From trial to trial a product’s effect varies by about \d+ %/),
    );
    expect(said).toContainEqual('Bosco: can’t be told from nothing added.');
  });
});
