import type { AreaId, TreatmentId } from '../model/ids';
import type { Plan, Treatment } from '../model/plan';
import type { Random } from '../stats/random';
import { type Happened, waterId } from './cleanPlan';

/** A plan, and what stands in its log. */
export interface Spoiled {
  plan: Plan;
  happened: Happened;
}

/** A fault, and what rule finds it. */
interface Fault {
  rule: string;
  put: (s: Spoiled, random: Random) => Spoiled;
}

const planned = (rule: string, put: (p: Plan, random: Random) => Plan): Fault => ({
  rule,
  put: (s, random) => ({ ...s, plan: put(s.plan, random) }),
});
const logged = (rule: string, put: (p: Plan, random: Random) => Happened): Fault => ({
  rule,
  put: (s, random) => ({ ...s, happened: { ...s.happened, ...put(s.plan, random) } }),
});
const ofB = (p: Plan, change: (t: Treatment) => Treatment): Plan => ({
  ...p,
  treatments: p.treatments.map((t) => (t.id === 'b' ? change(t) : t)),
});
const unitsOf = (p: Plan, id: string) => p.units.filter((u) => u.treatmentId === id).map((u) => u.id);

/** From what everybody sees to what few do. */
export const faults: readonly Fault[] = [
  planned('no-control', (p) => ({
    ...p,
    treatments: p.treatments.map((t) =>
      t.id === waterId
        ? { ...t, name: 'Feed C', role: 'test' as const, products: p.treatments[1]!.products }
        : t,
    ),
  })),
  planned('control-water', (p) => ofB(p, (t) => ({ ...t, water: 'tap' }))),
  planned('no-prediction', (p) => ({ ...p, prediction: '' })),
  planned('no-finishing-rule', (p) => ({ ...p, finishingRule: '' })),
  planned('unequal-light', (p) => ofB(p, (t) => ({ ...t, light: 'window' }))),
  planned('different-plants', (p) =>
    ofB(p, (t) => ({ ...t, conditions: { ...t.conditions, seedLot: '4' } })),
  ),
  planned('two-questions', (p) => ({
    ...p,
    question: `${p.question.replace('?', '')}, and which needs less water?`,
  })),
  planned('shared-place', (p) => ({ ...p, unitsShare: 'place' as const, ...inOwnAreas(p) })),
  planned('not-randomised', (p) => inColumns(p)),
  planned('unequal-room', (p) =>
    ofB(p, (t) => ({ ...t, conditions: { ...t.conditions, containerVolumeL: 3 } })),
  ),
  planned('above-label', (p) =>
    ofB(p, (t) => ({ ...t, products: t.products.map((u) => ({ ...u, amount: 4 })) })),
  ),
  planned('dose-error', (p) => ({ ...p, scaleStepG: 5 })),
  planned('no-smallest-difference', (p) => ({ ...p, smallestDifference: null })),
  planned('undisclosed', (p) => ({
    ...p,
    products: p.products.map((x) => (x.id === 'b' ? { ...x, obtained: 'sent free' as const } : x)),
  })),
  logged('hit-unevenly', (p) => ({
    happened: [{ what: 'missedWatering', unitIds: unitsOf(p, 'b').slice(0, 3), text: 'jug empty' }],
  })),
  logged('ended-apart', (p) => ({
    ended: p.units.map((u) => ({ unitId: u.id, day: u.treatmentId === 'b' ? 15 : 12 })),
  })),
  logged('dose-changed', () => ({ doseChanges: [{ treatmentId: 'b' as TreatmentId, day: 9 }] })),
  logged('mixed-otherwise', () => ({
    batches: [{ batch: 'EYE-B', amounts: [{ given: 20, wanted: 4 }] }],
  })),
];

/** Each contender on a shelf of its own. */
function inOwnAreas(p: Plan): Pick<Plan, 'areas' | 'units'> {
  const areas = p.treatments.map((_, i) => ({
    ...p.areas[0]!,
    ...{ id: `own${i}` as AreaId, name: `Shelf ${i + 1}`, rows: 2, columns: 3 },
  }));
  const put = new Map<string, number>();
  const units = p.units.map((u) => {
    const nth = put.get(u.treatmentId) ?? 0;
    put.set(u.treatmentId, nth + 1);
    const area = areas[p.treatments.findIndex((t) => t.id === u.treatmentId)]!;
    return { ...u, block: null, position: { areaId: area.id, row: Math.floor(nth / 3), column: nth % 3 } };
  });
  return { areas, units };
}

/** Placed by hand, a contender a column. */
const inColumns = (p: Plan): Plan => ({
  ...p,
  design: { ...p.design!, kind: 'hand' },
  units: p.units.map((u) => ({
    ...u,
    block: null,
    treatmentId: p.treatments[u.position.column % p.treatments.length]!.id,
  })),
});
