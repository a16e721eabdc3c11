import { describe, expect, it } from 'vitest';
import { freePosition } from '../design/freePosition';
import type { UnitId } from '../model/ids';
import { planSha256 } from '../plan/seal';
import { entry, height, heightTrait, plan, unitId } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { EXTRA_UNIT, nextCode, withExtraUnits } from './extraUnits';
import { deriveState, extend } from './state';
import { verifySeal } from './verifySeal';

const p = plan({ replicates: 2 });
const unit = {
  ...p.units[0]!,
  id: 'extra' as UnitId,
  code: 'TST-05',
  treatmentId: p.units.find((u) => u.id === unitId('A', 0))!.treatmentId,
  block: null,
  columnBlock: null,
};
const seal = entry({ kind: 'seal', planSha256: planSha256(p) }, 'seal');
const added = entry({ kind: 'extraUnit', unit, reason: 'one was left over' }, 'added');
const values = ['Water-0', 'Water-1', 'A-0', 'A-1', 'extra'].map((u, i) => entry(height(u as never, 5 + i)));

describe('a unit more than planned', () => {
  it('is walked and measured like the others, whatever came first; the sealed plan and its seal stay', () => {
    for (const log of [
      [seal, added, ...values],
      [...values, seal, added],
    ]) {
      const state = deriveState(p, log);
      expect(state.plan.units.map((u) => u.code)).toContain('TST-05');
      expect(state.observations).toHaveLength(5);
      expect(verifySeal(p, state.seal, null).tag).toBe('holds');
    }
    expect(p.units).toHaveLength(4);
  });
  it('extended line by line is the same as derived anew, also when it is taken back', () => {
    const back = entry(
      { kind: 'correction', supersedes: 'added', replacement: null, reason: 'a mistake' },
      'back',
    );
    let state = deriveState(p, []);
    const log = [seal, values[0]!, added, ...values.slice(1), back];
    for (const [i, line] of log.entries()) {
      state = extend(state, [line]);
      const anew = deriveState(p, log.slice(0, i + 1));
      expect(state.plan.units).toEqual(anew.plan.units);
      expect(state.observations).toEqual(anew.observations);
      expect(state.exclusions).toEqual(anew.exclusions);
    }
    expect(state.plan.units).toHaveLength(4);
    expect(state.observations).toHaveLength(4);
  });
  it('is left out of the findings with its reason, and can be taken in to see', () => {
    const state = deriveState(p, [seal, added, ...values]);
    const made = findingOf(state, heightTrait());
    if (!made.ok) throw new Error(made.error.tag);
    expect(made.value.units).toHaveLength(4);
    expect(made.value.leftOut.map((u) => [u.code, u.reason])).toEqual([['TST-05', EXTRA_UNIT]]);
    const within = findingOf(state, heightTrait(), { withExcluded: true });
    expect(within.ok && within.value.units).toHaveLength(5);
  });
  it('gets the next code and a free place; of an unknown contender it isn’t taken', () => {
    expect(nextCode(p)).toBe('TST-05');
    const roomy = { ...p, areas: p.areas.map((a) => ({ ...a, columns: a.columns + 1 })) };
    const free = freePosition(deriveState(roomy, []))!;
    expect(p.units.some((u) => u.position.row === free.row && u.position.column === free.column)).toBe(false);
    expect(withExtraUnits(p, [{ unit: { ...unit, treatmentId: 'nobody' as never } }])).toBe(p);
    expect(withExtraUnits(p, [{ unit: p.units[0]! }])).toBe(p);
  });
});
