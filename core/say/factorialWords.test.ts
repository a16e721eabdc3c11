// A factorial: each combination against its own control, in headline and notes.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { ownControl, roleInFactorial } from '../plan/ownControl';
import { harvest, plan, product, use } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { headline, notes } from './words';

const names = ['none sage', 'none marigold', 'dip sage', 'dip marigold'];
const base = plan({ treatments: names, replicates: 4 });
const p: Plan = {
  ...base,
  factors: [
    { name: 'Hormone', levels: ['none', 'dip'] },
    { name: 'Species', levels: ['sage', 'marigold'] },
  ],
  products: [product()],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    role: i < 2 ? 'untreated' : 'test',
    levels: { Hormone: i < 2 ? 'none' : 'dip', Species: i % 2 === 0 ? 'sage' : 'marigold' },
    products: i < 2 ? [] : [use({ productId: 'feed' as ProductId })],
  })),
};
const around = (m: number) => [m - 1.5, m - 0.5, m + 0.5, m + 1.5];
const finding = (plan_: Plan, means: number[]) => {
  const f = findingOf(
    deriveState(plan_, harvest(Object.fromEntries(names.map((n, i) => [n, around(means[i]!)])))),
    plan_.traits[0]!,
  );
  if (!f.ok) throw new Error(f.error.tag);
  return f.value;
};
const say = (means: number[], plan_ = p) => headline(finding(plan_, means), (id) => id).text;

describe('own controls', () => {
  const find = (name: string) => p.treatments.find((t) => t.name === name)!;
  it('are the same species without the dip, and roles follow', () => {
    expect(ownControl(p.treatments, p.factors, find('dip marigold'))!.name).toBe('none marigold');
    expect(ownControl(p.treatments, p.factors, find('dip sage'))!.name).toBe('none sage');
    expect(ownControl(p.treatments, p.factors, find('none marigold'))).toBeNull();
    expect(p.treatments.map((t) => roleInFactorial(p.treatments, p.factors, t))).toEqual([
      'untreated',
      'untreated',
      'test',
      'test',
    ]);
  });
});

describe('a factorial in a sentence', () => {
  it('a species that is larger by itself isn’t what the dip did', () => {
    // Marigold is twice sage, dipped or not: against the first control both marigolds would “beat” it.
    expect(say([50, 100, 50, 100])).toBe(
      'None of the two was shown to be better or worse than its own control.',
    );
    expect(say([50, 100, 50, 100], { ...p, factors: [] })).toMatch(/beat none sage/);
  });
  it('one combination alone, and many, are said otherwise', () => {
    const f = finding(p, [50, 100, 50, 100]);
    expect(headline({ ...f, against: f.against.slice(0, 1), lost: [] }, (id) => id).text).toBe(
      'dip sage made no difference that matters.',
    );
  });
  it('says in which species it did, and which way', () => {
    expect(say([50, 100, 70, 100])).toBe('Dip sage beat none sage.');
    expect(say([50, 100, 70, 80])).toBe(
      'Dip sage beat none sage; dip marigold did worse than none marigold.',
    );
  });
  it('a note gives each difference from its own control, contender first', () => {
    const own = notes(finding(p, [50, 100, 70, 100]), (id) => id, 'pot');
    expect(own.map((n) => n.title)).toEqual([
      'dip sage beat none sage.',
      'dip marigold: no better than none marigold.',
    ]);
    expect(own[0]!.text).toMatch(/^By 40 %, even at the low end more than the 5\.\d g that matters\.$/);
  });
});
