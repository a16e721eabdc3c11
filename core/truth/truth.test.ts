// Findings of trials whose truth is known: false ones stay at their share, and what is there can be found. The whole table is
// made by `npm run truth`; here a small part of it, with room for what chance does to so few runs.
import { describe, expect, it } from 'vitest';
import type { TraitId } from '../model/ids';
import { plan, trait } from '../testing/trial';
import { nameOfPlan, neverAble, truthPlans, truthRow, worstLine } from '../testing/truthGrid';
import { canSee } from './canSee';
import { makeFinding } from '../account/finding';
import { seededRandom } from '../stats/random';
import { inputOf, rowsOf } from './madeUp';
import { heldAgainstTruth, tryOut } from './tried';

const RUNS = 120;
/** Four errors above the share held, of the half of the runs a scenario has. */
const most = (hold: number) => hold + 4 * Math.sqrt((hold * (1 - hold)) / (RUNS / 2));

describe('what findings say of trials whose truth is known', () => {
  it.each(truthPlans(true).map((p) => [nameOfPlan(p), p] as const))('%s', (_, p) => {
    const row = truthRow(p, { runs: RUNS, seed: 5 });
    for (const share of [row.beat, row.pair, row.winner, row.value ?? 0])
      expect(share).toBeLessThan(most(row.hold));
    // Days that aren't all known can't be told by so few; all else finds what is ten times the spread.
    if (!p.kind.name.includes('not yet')) expect(neverAble(row)).toBe(false);
  });
  it('the judge sees what is false', () => {
    // Contenders that truly lie apart, looked at as if they didn't: every distinction is false.
    const [{ kind }] = truthPlans(true) as [ReturnType<typeof truthPlans>[number]];
    const apart = { trait: kind.trait, design: 'random', units: [4, 4, 4], scatter: 1 } as const;
    const there = tryOut({ ...apart, levels: [50, 90, 50] }, { runs: 20, seed: 1 });
    expect(there).toMatchObject({ found: 1, winner: 0 });
    const made = makeFinding(
      inputOf({ ...apart, levels: [] }, rowsOf({ ...apart, levels: [50, 90, 50] }, seededRandom(1))),
    );
    if (!made.ok) throw new Error(made.error.tag);
    expect(heldAgainstTruth(made.value, { ...apart, levels: [50, 90, 50] })).toMatchObject({
      beat: false,
      pair: false,
    });
    expect(heldAgainstTruth(made.value, { ...apart, levels: [50, 50, 50] })).toMatchObject({
      beat: true,
      pair: true,
    });
  });
  it('the last line names the worst of each', () => {
    const row = { name: '', hold: 0.05, runs: 1, beat: 0.051, pair: 0.052, winner: 0.019, value: 0.02, card: 0.048, untested: 0, power: 1, tenfold: 1, usualBeat: null, usualPower: null }; // prettier-ignore
    expect(worstLine([row, { ...row, hold: 0.06, beat: 0.9 }, { ...row, beat: 0, tenfold: 0.02 }])).toBe(
      'truth: false beat 5.1, false pair 5.2, false winner 1.9, false best value 2.0, false card 4.8, never able 1',
    );
  });
});

describe('what a plan can tell, said before it is sealed', () => {
  const rooted = trait({ id: 'x' as TraitId, kind: 'ratio', outOf: 10, summary: 'last' });
  const of = (replicates: number, over: Partial<typeof rooted> = {}, blocked = false) =>
    canSee(plan({ treatments: ['Water', 'A', 'B'], replicates, blocked, traits: [{ ...rooted, ...over }] }));
  it('two trays of each can’t tell 40 from 80 % of ten, and how many would is said', () => {
    expect(of(2)).toMatch(
      /^With 2 trays of each, k of ten (can’t tell 40 from 80 %; \d+ would|tells 40 from 80 % in \d+ of 100 trials)\.$/,
    );
    expect(of(6)).toMatch(/^With 6 trays of each, k of ten tells 40 from 80 % in [6-9]\d of 100 trials\.$/);
  });
  it('days until in four blocks: nothing where some haven’t got there', () => {
    expect(of(4, { kind: 'time', direction: 'lower' }, true)).toMatch(
      /^With 4 trays of each, days until can’t tell 20 from 12 days where some haven’t got there by the last look; (\d+ would|even 12 wouldn’t)\.$/,
    );
  });
  it('figures are rehearsed as they are', () => {
    expect(of(4, { kind: 'weighing' })).toBeNull();
  });
});
