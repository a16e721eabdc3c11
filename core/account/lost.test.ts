// Whoever is lost takes nobody's figures away: equals, the control, one of two species.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { entry, harvest, plan, product, unitId, use } from '../testing/trial';
import { headline, notes } from '../say/words';
import { cannotTell } from '../say/cannotTell';
import { contradictions } from '../say/statement';
import { makeVerdict } from '../verdict/verdict';
import { findingOf } from './findingInput';
import { findingRows } from './findingRows';
import { heldOf, soleControl } from './outcomes';
import { trialFindings } from './trialFindings';

const dead = (name: string, n = 4) =>
  Array.from({ length: n }, (_, i) =>
    entry({ kind: 'death', unitId: unitId(name, i), sample: null, cause: 'dried out' }),
  );
const around = (m: number) => [m - 1.5, m - 0.5, m + 0.5, m + 1.5];
const values = (means: Record<string, number>) =>
  harvest(Object.fromEntries(Object.entries(means).map(([n, m]) => [n, around(m)])));
const found = (p: Plan, log: Parameters<typeof deriveState>[1]) => {
  const f = findingOf(deriveState(p, log), p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  return f.value;
};
const id = (x: string) => x;

describe('the control is lost', () => {
  const p = plan({ treatments: ['Water', 'A', 'B'], replicates: 4 });
  const log = [...values({ A: 60, B: 80 }), ...dead('Water')];
  const f = found(p, log);
  it('the others keep their figures, and what is missing is said', () => {
    expect(f.analysis.summaries.map((s) => [s.name, s.n])).toEqual([['A', 4], ['B', 4]]); // prettier-ignore
    expect(f.lost).toEqual([{ id: 'Water', why: 'died' }]);
    expect(soleControl(f)).toBeNull();
    expect(heldOf(f)).toEqual([]);
    expect(headline(f, id).text).toBe(
      'B beat A. The control, Water (died), has no figure: whether anything does better than it this trial can’t tell.',
    );
  });
  it('nothing is told of it elsewhere: no row for a file, no best value, no note against it', () => {
    const { inputs, nameOf } = trialFindings({ plan: p, log, key: null });
    expect(findingRows({ inputs, nameOf }).flatMap((r) => r.versusControl)).toEqual([]);
    const v = makeVerdict(p, f, id);
    expect(v.bestValue).toMatchObject({ treatmentId: null });
    expect(v.lines.find((l) => l.treatment.id === 'Water')!.absent).toBe('died');
    const said = [v.headline, v.bestValue, ...v.cannotTell];
    expect(said.map((s) => s.text).join(' ')).not.toMatch(/beat Water|than Water|against Water/);
    expect(contradictions(said)).toEqual([]);
  });
  it('one left alone keeps its number, without a winner', () => {
    const one = found(p, [...values({ B: 80 }), ...dead('Water'), ...dead('A')]);
    expect(one.analysis.spread).toBe('alone');
    expect(one.analysis.summaries[0]!.mean).toBe(80);
    expect(headline(one, id).text).toMatch(/^One contender alone has values: numbers/);
    expect(one.ranking[0]!.rank).toBeNull();
  });
});

describe('equals of whom the first-listed died', () => {
  const p: Plan = {
    ...plan({ treatments: ['A', 'B', 'C'], replicates: 4 }),
    peers: true,
    treatments: plan({ treatments: ['A', 'B', 'C'] }).treatments.map((t) => ({
      ...t,
      role: 'test' as const,
    })),
  };
  const f = found(p, [...values({ B: 60, C: 80 }), ...dead('A')]);
  it('are compared, and nobody is called a control', () => {
    expect(f.lost).toEqual([]);
    expect(headline(f, id).text).toBe('C beat B. Without a figure: A (died).');
    expect(cannotTell(p, f, makeVerdict(p, f, id).lines, id).map((c) => c.text)).toContain(
      'What A does: it has no figure (died).',
    );
  });
});

describe('a contender without a figure isn’t counted among those that have one', () => {
  const p = plan({ treatments: ['Water', 'A', 'B', 'C'], replicates: 4 });
  const said = (log: Parameters<typeof deriveState>[1]) => headline(found(p, log), id);
  const means = { Water: 40, A: 60, B: 80, C: 100 };
  it('all but the dead one', () => {
    const { C: _, ...others } = means;
    const s = said([...values(others), ...dead('C')]);
    expect(s.text).toBe(
      'Both contenders that have a figure beat Water; B came first. Without a figure: C (died).',
    );
    expect(s.facts).toContainEqual({ is: 'noFigure', a: 'C' });
    expect(contradictions([s])).toEqual([]);
  });
  it('nobody is missing: not a word of it', () => {
    expect(said(values(means)).text).toBe('All three contenders beat Water; C came first.');
  });
});

describe('two species, each with its own control', () => {
  const names = ['none·sage', 'iba·sage', 'none·rue', 'iba·rue'];
  const base = plan({ treatments: names, replicates: 4 });
  const p: Plan = {
    ...base,
    factors: [
      { name: 'Hormone', levels: ['none', 'iba'] },
      { name: 'Species', levels: ['sage', 'rue'] },
    ],
    products: [product()],
    treatments: base.treatments.map((t, i) => ({
      ...t,
      role: i % 2 === 0 ? 'untreated' : 'test',
      levels: { Hormone: i % 2 === 0 ? 'none' : 'iba', Species: i < 2 ? 'sage' : 'rue' },
      products: i % 2 === 0 ? [] : [use({ productId: 'feed' as ProductId })],
    })),
  };
  it('each is held against its own, never across species', () => {
    const f = found(p, values({ none·sage: 50, iba·sage: 51, none·rue: 50, iba·rue: 70 }));
    expect(headline(f, id).text).toBe('Iba·rue beat none·rue.');
    const v = makeVerdict(p, f, id);
    expect(v.bestValue.text).toMatch(/^Each stands against its own control/);
    expect(v.cannotTell.map((c) => c.text).join(' ')).not.toMatch(/sage.*against.*rue|rue.*against.*sage/);
    expect(v.lines.find((l) => l.treatment.id === 'iba·rue')!.against).toBe('none·rue');
    expect(f.ranking.find((r) => r.name === 'iba·rue')).toMatchObject({ rank: 1, tied: false });
    expect(f.ranking.find((r) => r.name === 'iba·sage')).toMatchObject({ rank: 1, tied: true });
  });
  it('a species whose control died stands without a comparison, the other with one', () => {
    const log = [...values({ iba·sage: 51, none·rue: 50, iba·rue: 70 }), ...dead('none·sage')];
    const f = found(p, log);
    expect(f.peers).toBe(false);
    expect(headline(f, id).text).toBe(
      'iba·rue beat none·rue. A control without a figure: none·sage (died). What stands on its ground has nothing to be held against.',
    );
    expect(notes(f, id, 'pot').map((n) => n.title)).toContain('A control is missing.');
  });
});
