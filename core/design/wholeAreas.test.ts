import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { auditInput } from '../fairness/auditInput';
import { audit } from '../fairness/audit';
import { deriveState } from '../log/state';
import { experimentalUnits, sayShared, sharesPlace } from '../plan/sharing';
import { plan, product, trialOf, use } from '../testing/trial';
import type { Design } from '../model/plan';
import { howMany } from './howMany';
import { layOut } from './layOut';
import { sharedNoun, withRoom } from '../schedule/withRoom';

const design = (replicates: number, seed = 1): Design => ({
  ...{ kind: 'crd', replicates, seed, settings: [], balance: null },
});
const bare = (names: string[], protocolId: string | null = 'systems') => ({
  ...plan({ treatments: names, replicates: 1 }),
  ...{ areas: [], units: [], protocolId, unitNoun: 'plant', unitsShare: 'place' as const },
});
/** Laid out with the places it needs. */
function laid(names: string[], places: number, inEach: number, seed = 1) {
  const ready = withRoom(bare(names), design(places, seed), inEach);
  const units = layOut(ready, design(places, seed));
  if (!units.ok) throw new Error(units.error.tag);
  return { ...ready, units: units.value };
}

describe('one contender in each area', () => {
  it('areas are made, each is filled with one contender, and each is one repeat (property)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 6 }),
        fc.nat(9999),
        (k, places, inEach, seed) => {
          const p = laid(Array.from({ length: k }, (_, i) => `T${i}`), places, inEach, seed); // prettier-ignore
          expect(p.areas).toHaveLength(k * places);
          expect(new Set(p.areas.map((a) => a.name)).size).toBe(k * places);
          const own = experimentalUnits(p);
          expect(own).toHaveLength(k * places);
          for (const e of own) {
            expect(e.members).toHaveLength(inEach);
            expect(new Set(e.members.map((u) => u.position.areaId)).size).toBe(1);
          }
          for (const t of p.treatments)
            expect(own.filter((e) => e.unit.treatmentId === t.id)).toHaveLength(places);
        },
      ),
    );
  });
  it('chance deals them: not every seed gives the same', () => {
    const order = (seed: number) =>
      laid(['A', 'B'], 3, 1, seed)
        .units.map((u) => u.treatmentId)
        .join();
    expect(new Set(Array.from({ length: 20 }, (_, i) => order(i))).size).toBeGreaterThan(5);
  });
  it('those that lack are made like the last; a plan with enough keeps its own', () => {
    const two = laid(['A', 'B'], 1, 2);
    const four = withRoom(two, design(2), 9);
    expect(four.areas.map((a) => [a.name, a.columns])).toEqual([
      ['Greenhouse 1', 2],
      ['Greenhouse 2', 2],
      ['Greenhouse 3', 2],
      ['Greenhouse 4', 2],
    ]);
    expect(withRoom(four, design(2), 9)).toEqual(four);
  });
  it('without room it says how many areas are needed', () => {
    const two = laid(['A', 'B'], 1, 2);
    const none = layOut(two, design(2));
    expect(none).toEqual({ ok: false, error: { tag: 'tooFewAreas', wanted: 4, available: 2 } });
  });
  it('one of each says that it gives no winner, and breaks the audit; two of each don’t', () => {
    expect(sayShared(2, 1, 'tent')).toBe('One tent of each is one repeat each: numbers, and no winner.');
    expect(sayShared(2, 2, 'tent')).toBe('4 tents, 2 repeats of each. What stands in one is its samples.');
    const rules = (places: number) => {
      const p = laid(['A', 'B'], places, 3);
      return audit(auditInput(trialOf(p), deriveState(p, []))).map((f) => f.ruleId);
    };
    expect(rules(1)).toContain('shared-place');
    expect(rules(2)).not.toContain('shared-place');
    expect(rules(2)).not.toContain('samples-as-units');
  });
  it('how many counts areas, and what stands in each is paid for', () => {
    const bare = laid(['A', 'B'], 2, 3);
    const p = {
      ...bare,
      products: [product()],
      treatments: bare.treatments.map((t) => ({ ...t, products: [use()] })),
    };
    const sized = howMany(p, 20, 30, 0.8)!;
    expect([sized.replicates, sized.positions]).toEqual([2, 4]);
    expect(sized.positionsNeeded).toBe(2 * sized.neededVersusControl!);
    const alone = howMany({ ...p, unitsShare: 'nothing' }, 20, 30, 0.8)!;
    expect([alone.replicates, alone.positions]).toEqual([6, 12]);
    expect(sized.costPerReplicate!.minor).toBe(3 * alone.costPerReplicate!.minor);
  });
  it('areas of a kind have its name', () => {
    expect(sharedNoun(bare(['A', 'B']))).toBe('greenhouse');
    expect(sharedNoun({ areas: [], protocolId: null })).toBe('shelf');
    expect(sharesPlace({ ...bare(['A']), unitsShare: 'nothing' })).toBe(false);
  });
});
