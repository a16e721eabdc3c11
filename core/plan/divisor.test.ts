import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { AreaId } from '../model/ids';
import type { Plan, Trait } from '../model/plan';
import { harvest, plan, product, trait, use } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';
import { headline, methodText, notes } from '../say/words';
import { divisorOf, groundOf, groundRatio } from './divisor';
import { missingForSeal } from './seal';

/** Three strips of each of two amendments; those of A are 1.7 times as wide, 1 m² against 1.7 m². */
function strips(per?: Trait['per']): Plan {
  const base = plan({ treatments: ['Nothing', 'A'], replicates: 3, traits: [trait(per ? { per } : {})] });
  return {
    ...base,
    unitNoun: 'strip',
    areas: [100, 170].map((widthCm, i) => ({
      ...base.areas[0]!,
      id: `side${i}` as AreaId,
      kind: 'lawn' as const,
      rows: 3,
      columns: 1,
      widthCm,
      depthCm: 300,
    })),
    units: base.units.map((u) => ({
      ...u,
      position: {
        areaId: `side${base.treatments.findIndex((t) => t.id === u.treatmentId)}` as AreaId,
        row: u.position.row,
        column: 0,
      },
    })),
  };
}
// Worked by hand: 100 g from 1 m² is 100 g/m²; 340 g from 1.7 m² is 200 g/m².
const cut = () => harvest({ Nothing: [98, 100, 102], A: [336.6, 340, 343.4] });
const made = (p: Plan) => {
  const f = findingOf(deriveState(p, cut()), p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  return f.value;
};

describe('strips of unequal size', () => {
  it('per strip the larger ones win by their size: +240 %', () => {
    expect(made(strips()).analysis.versusControl[0]!.estimate).toBeCloseTo(240, 9);
  });
  it('per square metre they give twice as much, and the unit says so', () => {
    const finding = made(strips('area'));
    const [a] = finding.analysis.versusControl;
    expect(a!.estimate).toBeCloseTo(100, 9);
    expect(a!.percent!.estimate).toBeCloseTo(100, 9);
    expect(finding.trait.unit).toBe('g/m²');
    expect(finding.units.map((u) => u.value)).toContainEqual(expect.closeTo(202, 9));
    expect(notes(finding, (id) => id, 'strip')[0]!.text).toContain('100 %');
    expect(methodText(finding, 'strip')).toContain('Divided by the ground of each strip, 1–1.7 m².');
  });
  it('what a result cost is per square metre on both sides', () => {
    const p = strips('area');
    const dosed: Plan = {
      ...p,
      products: [product()],
      treatments: p.treatments.map((t, i) => (i === 1 ? { ...t, products: [use({ amount: 340 })] } : t)),
    };
    const line = makeVerdict(dosed, made(dosed), (id) => id).lines.find((l) => l.treatment.name === 'A')!;
    // 340 mL of a litre at 10.00 is 3.40 a strip of 1.7 m²: 2.00 a m², for 200 g, 100 g more than nothing gave.
    expect(line.perResult!.minor).toBeCloseTo(1, 9);
    expect(line.perExtra!.perExtra.minor).toBeCloseTo(2, 9);
    // It is money for a gram, though grams are compared per square metre.
    const verdict = makeVerdict(dosed, made(dosed), (id) => id);
    expect(verdict.bestValue.text).toMatch(/for each g more than Nothing\.$/);
  });
  it('with a strip not weighed yet the headline says so far; with all it doesn’t', () => {
    const p = strips('area');
    const half = findingOf(deriveState(p, cut().slice(0, 5)), p.traits[0]!);
    if (!half.ok) throw new Error(half.error.tag);
    expect(headline(half.value, (id) => id).text).toMatch(/^So far: /);
    expect(headline(made(p), (id) => id).text).toBe('A beat Nothing.');
    const { cannotTell } = makeVerdict(p, half.value, (id) => id);
    expect(cannotTell.map((c) => c.text)).toContain('How it ends: not every unit is measured.');
  });
  it('how far sizes differ', () => {
    expect(groundRatio(strips())).toBeCloseTo(1.7, 9);
    expect(groundRatio(plan())).toBeNull();
  });
});

describe('what a unit covers', () => {
  const [unit] = plan().units;
  it.each([
    ['a size written for its treatment', (p: Plan) => p, 2000, 0.2],
    [
      'the size of a round unit',
      (p: Plan) => ({ ...p, unitShape: 'round' as const, unitWidthCm: 20, unitDepthCm: 20 }),
      null,
      Math.PI / 100,
    ],
    ['nothing that is known', (p: Plan) => p, null, null],
  ] as const)('%s', (_, change, said, expected) => {
    const p = change(plan());
    const with_ = {
      ...p,
      treatments: p.treatments.map((t) => ({ ...t, conditions: { ...t.conditions, areaPerUnitCm2: said } })),
    };
    const ground = groundOf(with_, unit!);
    if (expected === null) expect(ground).toBeNull();
    else expect(ground).toBeCloseTo(expected, 12);
  });
});

describe('a divisor nobody gave', () => {
  const p = plan({ traits: [trait({ per: 'plant' })] });
  it('keeps the plan from being sealed, and says what is missing', () => {
    expect(divisorOf(p, p.units[0]!, p.traits[0]!)).toBeNull();
    expect(missingForSeal(p)).toContainEqual({
      room: 'contenders',
      what: 'plants in a tray, for cut weight per plant',
    });
    expect(missingForSeal(plan())).not.toContainEqual(expect.objectContaining({ room: 'contenders' }));
  });
  it('leaves units out with the reason rather than comparing them by the unit', () => {
    const state = deriveState(p, harvest({ Water: [1, 2, 3], A: [2, 3, 4] }));
    const f = findingOf(state, p.traits[0]!);
    expect(f.ok).toBe(false);
  });
});
