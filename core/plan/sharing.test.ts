// Plants that share a tent, tank or reservoir are samples of it.
import { describe, expect, it } from 'vitest';
import { findingOf } from '../account/findingInput';
import { layoutResidualDf } from '../fairness/unitRules';
import { audit } from '../fairness/audit';
import { auditInput } from '../fairness/auditInput';
import { deriveState } from '../log/state';
import type { AreaId } from '../model/ids';
import type { AreaKind, Plan } from '../model/plan';
import { headline } from '../say/words';
import { harvest, plan, trialOf } from '../testing/trial';
import { sayDesign } from '../account/thing';
import { experimentalNoun, experimentalUnits, measuredPer, sharesPlace } from './sharing';

/** Two systems, two plants of each in a place, in so many places each. */
function systems(places: number, kind: AreaKind = 'tent', over: Partial<Plan> = {}): Plan {
  const base = plan({ treatments: ['Soil', 'Water culture'], replicates: 2 * places });
  const areas = base.treatments.flatMap((t) =>
    Array.from({ length: places }, (_, i) => ({
      ...{ id: `${t.id} ${i}` as AreaId, name: `${t.name} ${kind} ${i + 1}`, kind },
      ...{ rows: 1, columns: 2, widthCm: null, depthCm: null, reserved: [] },
    })),
  );
  const seen = new Map<string, number>();
  return {
    ...base,
    unitNoun: 'plant',
    areas,
    wholeSystem: true,
    units: base.units.map((u) => {
      const n = seen.get(u.treatmentId) ?? 0;
      seen.set(u.treatmentId, n + 1);
      const areaId = `${u.treatmentId} ${Math.floor(n / 2)}` as AreaId;
      return { ...u, position: { areaId, row: 0, column: n % 2 } };
    }),
    ...over,
  };
}
const far = harvest({ Soil: [50, 51, 52, 53], 'Water culture': [90, 91, 92, 93] });
const said = (p: Plan, n: number) => {
  const log = far.filter((e) => p.units.some((u) => 'unitId' in e && e.unitId === u.id)).slice(0, n);
  const f = findingOf(deriveState(p, log), p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  return { text: headline(f.value, (x) => x).text, finding: f.value };
};

describe('one tent for each system, two plants in it', () => {
  const p = systems(1);
  it('is one unit each: the plants are its samples', () => {
    expect(sharesPlace(p)).toBe(true);
    expect(experimentalNoun(p)).toBe('tent');
    expect(measuredPer(p)).toBe('plant, mean of a tent');
    expect(sayDesign(p, { kind: 'crd' })).toBe(
      'given out to 2 tents, which are the repeats: what stands in one got its treatment together',
    );
    const own = { ...p, unitsShare: 'nothing' as const };
    expect([measuredPer(own), sayDesign(own, { kind: 'crd' })]).toEqual(['plant', 'completely random']);
    const { text, finding } = said(p, 99);
    expect(text).toBe('One unit each: numbers, no winner.');
    expect(finding.units.map((u) => [u.code, u.value])).toEqual([
      ['Soil tent 1 (2)', 50.5],
      ['Water culture tent 1 (2)', 90.5],
    ]);
    expect(layoutResidualDf(p)).toBe(0);
  });
  it('is a fault the audit names, and can be said to be otherwise', () => {
    const found = audit(auditInput(trialOf(p), deriveState(p, []))).find((f) => f.ruleId === 'shared-place');
    expect(found?.found).toContain('Soil tent 1: Soil, 2 plants');
    const own = { ...p, unitsShare: 'nothing' as const };
    expect(experimentalUnits(own)).toHaveLength(4);
    expect(said(own, 99).text).toBe('Water culture beat Soil.');
  });
});

describe('several places', () => {
  it('two tents each are two units each', () => {
    const { finding, text } = said(systems(2), 99);
    expect(finding.analysis.summaries.map((s) => s.n)).toEqual([2, 2]);
    expect(text).toBe('Water culture beat Soil.');
  });
  it('a shelf isn’t shared air or water unless the plan says so', () => {
    expect(sharesPlace(systems(2, 'shelf'))).toBe(false);
    expect(sharesPlace(systems(2, 'shelf', { unitsShare: 'place' }))).toBe(true);
  });
  it('a tent in which several contenders stand is no unit', () => {
    expect(sharesPlace(plan({ treatments: ['Water', 'A'] }))).toBe(false);
  });
});
