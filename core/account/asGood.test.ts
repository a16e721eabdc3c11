// “Is the cheaper one as good?”: every sentence with data that make it and data that don't.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { Plan } from '../model/plan';
import { entry, harvest, plan, trait, unitId } from '../testing/trial';
import { findingOf } from './findingInput';
import type { TraitId } from '../model/ids';
import { headline } from '../say/words';

const asked = (names: string[], over: Partial<Plan> = {}): Plan => {
  const base = plan({ treatments: names, replicates: 6 });
  return {
    ...base,
    asks: 'asGood',
    smallestDifference: { kind: 'absolute', value: 5 },
    treatments: base.treatments.map((t, i) => ({ ...t, role: i === 0 ? 'reference' : 'test' })),
    ...over,
  };
};
const around = (m: number, by: number) => [-2.5, -1.5, -0.5, 0.5, 1.5, 2.5].map((x) => m + x * by);
const said = (p: Plan, means: number[], by = 1) => {
  const values = Object.fromEntries(p.treatments.map((t, i) => [t.name, around(means[i]!, by)]));
  const f = findingOf(deriveState(p, harvest(values)), p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  return headline(f.value, (id) => id).text;
};
const two = asked(['Dear', 'Cheap']);
const three = asked(['Dear', 'Cheap', 'Own']);

describe('as good as', () => {
  it.each([
    [two, [60, 59], 1, 'Cheap is as good as Dear, to within 5.0 g.'],
    [two, [60, 70], 1, 'Cheap is better than Dear.'],
    [two, [60, 48], 1, 'Cheap falls short of Dear by more than 5.0 g.'],
    [two, [60, 55], 1, 'Cheap is worse than Dear (whether by more than 5.0 g can’t be told).'],
    [two, [60, 58], 5, 'Whether Cheap is as good as Dear, to within 5.0 g, can’t be told.'],
    [three, [60, 60, 61], 1, 'Cheap and Own are as good as Dear, to within 5.0 g.'],
    [
      three,
      [60, 60, 45],
      1,
      'Cheap is as good as Dear, to within 5.0 g; Own falls short of Dear by more than 5.0 g.',
    ],
  ])('%#', (p, means, by, sentence) => {
    expect(said(p, means, by)).toBe(sentence);
  });
  it('isn’t said where it isn’t asked, or nothing is set that matters', () => {
    expect(said({ ...two, asks: 'best' }, [60, 59])).not.toContain('as good as');
    expect(said({ ...two, smallestDifference: null }, [60, 59])).not.toContain('as good as');
  });
  it('where less is better, more is worse', () => {
    const lower = { ...two, traits: two.traits.map((t) => ({ ...t, direction: 'lower' as const })) };
    expect(said(lower, [60, 48])).toBe('Cheap is better than Dear.');
    expect(said(lower, [60, 75])).toBe('Cheap falls short of Dear by more than 5.0 g.');
  });
  it('the reference is what is held against, also beside an untreated control', () => {
    const p = asked(['Water', 'Dear', 'Cheap']);
    const roles = ['untreated', 'reference', 'test'] as const;
    const full = { ...p, treatments: p.treatments.map((t, i) => ({ ...t, role: roles[i]! })) };
    expect(said(full, [30, 60, 60])).toBe(
      'Cheap is as good as Dear, to within 5.0 g; Water falls short of Dear by more than 5.0 g.',
    );
  });
});

describe('as good as, of scores and days', () => {
  const looks = trait({
    id: 'looks' as TraitId,
    name: 'Looks',
    unit: 'steps',
    kind: 'score',
    summary: 'last',
  });
  const days = trait({
    id: 'days' as TraitId,
    name: 'Rooted',
    unit: 'days',
    kind: 'time',
    direction: 'lower',
    summary: 'last',
  });
  const ask = (of: typeof looks, values: Record<string, number[]>, d = 1) => {
    const p: Plan = {
      ...two,
      traits: [of],
      primaryTraitId: of.id,
      smallestDifference: { kind: 'absolute', value: d },
      rounds: two.rounds.map((r) => ({ ...r, traitIds: [of.id] })),
    };
    const log = Object.entries(values).flatMap(([t, list]) =>
      list.map((value, i) =>
        entry({
          kind: 'measurement',
          unitId: unitId(t, i),
          traitId: of.id,
          roundId: 'r2',
          sample: null,
          value,
        }),
      ),
    );
    const f = findingOf(deriveState(p, log), of);
    if (!f.ok) throw new Error(f.error.tag);
    return headline(f.value, (id) => id).text;
  };
  it.each([
    [looks, [4, 4, 4, 3, 4, 4], [4, 4, 4, 4, 3, 4], 'Cheap is as good as Dear, to within 1.0 steps.'],
    [looks, [2, 2, 3, 2, 2, 3], [4, 5, 4, 5, 4, 5], 'Cheap is better than Dear.'],
    [looks, [5, 5, 5, 4, 5, 5], [2, 1, 2, 2, 1, 2], 'Cheap falls short of Dear by more than 1.0 steps.'],
    [
      looks,
      [1, 5, 2, 4, 3, 3],
      [5, 1, 4, 2, 3, 3],
      'Whether Cheap is as good as Dear, to within 1.0 steps, can’t be told.',
    ],
    [
      days,
      [20, 21, 20, 22, 21, 20],
      [21, 20, 21, 21, 20, 22],
      'Cheap is as good as Dear, to within 4.0 days.',
    ],
    [
      days,
      [20, 21, 20, 22, 21, 20],
      [30, 31, 32, 30, 33, 31],
      'Cheap falls short of Dear by more than 4.0 days.',
    ],
    [looks, [4, 4, 4, 4, 4, 4], [4, 4, 4, 4, 4, 4], 'No spread was seen: numbers, no winner.'],
  ])('%# ', (of, dear, cheap, sentence) => {
    expect(ask(of, { Dear: dear, Cheap: cheap }, of === days ? 4 : 1)).toBe(sentence);
  });
});
