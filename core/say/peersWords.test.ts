// Equals without a control: every sentence about them, with data that make it and data that don't.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { Plan } from '../model/plan';
import { missingForSeal } from '../plan/seal';
import { harvest, plan } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';
import { headline, notes } from './words';

const peers = (names: string[], over: Partial<Plan> = {}): Plan => {
  const base = plan({ treatments: names, replicates: 4 });
  return {
    ...base,
    peers: true,
    smallestDifference: { kind: 'absolute', value: 5 },
    treatments: base.treatments.map((t) => ({ ...t, role: 'test' as const })),
    ...over,
  };
};
const around = (m: number, by = 1) => [m - 1.5 * by, m - 0.5 * by, m + 0.5 * by, m + 1.5 * by];
const finding = (p: Plan, means: number[], by = 1) => {
  const values = Object.fromEntries(p.treatments.map((t, i) => [t.name, around(means[i]!, by)]));
  const f = findingOf(deriveState(p, harvest(values)), p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  return f.value;
};
const id = (x: string) => x;
const four = peers(['A', 'B', 'C', 'D']);
const two = peers(['A', 'B']);

it('four equals can be sealed; without the word for it a control is asked for', () => {
  const asked = (p: Plan) => missingForSeal(p).some((m) => m.what.startsWith('a control'));
  expect(asked(four)).toBe(false);
  expect(asked({ ...four, peers: undefined })).toBe(true);
});

describe('equals in a sentence', () => {
  it.each([
    [four, [50, 60, 70, 90], 1, 'D beat all the others.'],
    [four, [50, 60, 88, 90], 1, 'D and C share the lead.'],
    [four, [50, 50.2, 49.9, 50.1], 8, 'Nothing was told apart among the four: too close to call.'],
    [four, [50, 50, 50, 50], 0.5, 'No difference that matters between the four.'],
    [two, [50, 80], 1, 'B beat A.'],
    [two, [50, 51], 8, 'Between B and A: too close to call.'],
    [two, [50, 50], 0.5, 'No difference that matters between A and B.'],
  ])('%#', (p, means, by, said) => {
    expect(headline(finding(p, means, by), id).text).toBe(said);
  });
  it('the first of a row that isn’t clear of everyone came first, and beat not all', () => {
    const f = finding(four, [50, 60, 70, 90]);
    // As a test without a common spread may have it: the leader isn't clear of one that another is clear of.
    const outcomes = f.outcomes.map((o) =>
      [o.a, o.b].includes('D') && [o.a, o.b].includes('A')
        ? { ...o, verdict: 'tooClose' as const, ahead: null }
        : o,
    );
    expect(headline({ ...f, outcomes }, id).text).toBe('D came first.');
  });
  it('pairs stand as told apart, alike or open, the better one first, and none against a control', () => {
    const text = notes(finding(four, [50, 60, 88, 90], 2), id, 'pot');
    expect(text.map((n) => n.title)).toEqual(['Told apart, the better one first.', 'Too close to call.']);
    expect(text[0]!.text).toMatch(/B against A: \+/);
    expect(text[1]!.text).toMatch(/^C against D: |^D against C: /);
    expect(notes(finding(four, [50, 50, 50, 50], 0.5), id, 'pot').map((n) => n.title)).toEqual([
      'No difference that matters.',
    ]);
  });
});

describe('equals in numbers', () => {
  it('every pair has the same limits, those with the first too (Tukey, not Dunnett)', () => {
    const widths = finding(four, [50, 60, 70, 90]).analysis.pairs.map((c) => c.high! - c.low!);
    for (const w of widths) expect(w).toBeCloseTo(widths[0]!, 9);
    const held = finding(
      { ...four, peers: undefined, treatments: plan({ treatments: ['A', 'B', 'C', 'D'] }).treatments },
      [50, 60, 70, 90],
    );
    const [withControl, without] = [held.analysis.pairs[0]!, held.analysis.pairs.at(-1)!];
    expect(withControl.high! - withControl.low!).toBeLessThan(without.high! - without.low! - 1e-6);
  });
  it('the verdict says what no control leaves open, and prices no extra gram', () => {
    const v = makeVerdict(four, finding(four, [50, 60, 70, 90]), id);
    expect(v.cannotTell[0]!.text).toBe(
      'Whether any of them is better than nothing: equals were compared, without a control.',
    );
    expect(v.lines.every((l) => l.perExtra === null)).toBe(true);
    expect(v.bestValue.treatmentId).toBeNull();
  });
});
