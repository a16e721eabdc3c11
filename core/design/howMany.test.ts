import { describe, expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import { plan, product, use } from '../testing/trial';
import { blockingOf, howMany } from './howMany';
import { powerOf, sizeOf } from './power';
import { inAHundred, rehearsalHeadline } from '../plan/rehearsed';
import { rehearsalRemarks, rightOf } from './rehearsalWords';
import type { Scenario } from './rehearsal';

describe('how many', () => {
  const p = plan({ treatments: ['Water', 'A', 'B'], replicates: 5, blocked: true });
  it('counts the plan’s own units, and what it would take', () => {
    const found = howMany(p, 10, 15, 0.8)!;
    expect(found).toMatchObject({ treatments: 3, replicates: 5, dfResidual: 8, positions: 15 });
    const power = powerOf(sizeOf(3, 5, 'perReplicate', 0.05, 'own'), 10, 15)!;
    expect(found.powerVersusControl).toBe(power.versusControl);
    expect(
      powerOf(sizeOf(3, found.neededVersusControl!, 'perReplicate', 0.05, 'own'), 10, 15)!.versusControl,
    ).toBeGreaterThanOrEqual(0.8);
    expect(found.positionsNeeded).toBe(3 * found.neededVersusControl!);
    expect(found.neededPair!).toBeGreaterThanOrEqual(found.neededVersusControl!);
    expect(found.seenPair!).toBeGreaterThan(found.seenVersusControl!);
  });
  it('prices it from the library', () => {
    const fed = {
      ...p,
      products: [product()],
      treatments: p.treatments.map((t, i) =>
        i > 0 ? { ...t, products: [use({ productId: 'feed' as ProductId })] } : t,
      ),
    };
    // 10 mL of a litre at 10.00 are 10 cents, twice.
    const found = howMany(fed, 10, 15, 0.8)!;
    expect(found.costPerReplicate).toEqual({ minor: 20, currency: 'EUR' });
    expect(found.costNeeded!.minor).toBe(20 * found.neededVersusControl!);
    expect(howMany({ ...fed, products: [product({ packs: [] })] }, 10, 15, 0.8)!.costNeeded).toBeNull();
  });
  it('says nothing where nothing is set', () => {
    expect(howMany({ ...p, treatments: [p.treatments[0]!] }, 10, 10, 0.8)).toBeNull();
    const bare = howMany({ ...p, units: [], design: null }, 10, null, 0.8)!;
    expect(bare).toMatchObject({
      replicates: 0,
      seenVersusControl: null,
      powerVersusControl: null,
      neededPair: null,
    });
  });
  it('knows how blocks grow', () => {
    const of = (kind: 'crd' | 'rcbd' | 'latin' | 'split') => blockingOf({ design: { ...p.design!, kind } });
    expect([of('crd'), of('rcbd'), of('latin'), of('split')]).toEqual([
      1,
      'perReplicate',
      'latin',
      'perReplicate',
    ]);
  });
});

describe('what a rehearsal says', () => {
  const outcome = (right: number, falseWinner: number) => ({
    right,
    falseWinner,
    tooClose: 1 - right - falseWinner,
  });
  const scenario = (right: number, wrong: number, plants: number | null = null): Scenario => ({
    plan: outcome(right, wrong),
    plantsAsUnits: plants === null ? null : outcome(0, plants),
    withoutBlocks: null,
    withoutControl: null,
  });
  const result = {
    runs: 100,
    nothing: scenario(0, 0.05, 0.4),
    predicted: scenario(0.83, 0.02),
    sweep: [],
    lostRuns: 0,
    asGood: null,
  };
  it('puts shares into words', () => {
    expect(inAHundred(0.834)).toBe('83 of 100 runs');
    expect(rehearsalHeadline({ ...rightOf(result), hasPrediction: true })).toBe(
      'If things go as predicted, the right winner is named in 83 of 100 runs: the plan can carry the question.',
    );
    expect(
      rehearsalHeadline({ ...rightOf({ ...result, predicted: scenario(0.3, 0) }), hasPrediction: false }),
    ).toMatch(/If one product.*30 of 100.*nothing/);
  });
  it('warns of plants counted as units and of an unfair layout', () => {
    expect(rehearsalRemarks(result).join(' ')).toMatch(/plants as units .* 40 of 100/);
    // Equals have no control: nothing is said of one.
    expect(rehearsalRemarks(result)[0]).toMatch(
      /^When nothing differs, a difference is still seen in \d+ of 100/,
    );
    expect(rehearsalRemarks({ ...result, nothing: scenario(0, 0.3) }).join(' ')).toMatch(
      /layout itself favours/,
    );
    expect(rehearsalRemarks({ ...result, lostRuns: 4 }).join(' ')).toMatch(/4 runs lost/);
  });
});
