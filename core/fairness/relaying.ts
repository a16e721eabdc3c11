import { blockingOf } from '../design/howMany';
import { layOut, positionsOf } from '../design/layOut';
import type { Design, Plan, Unit } from '../model/plan';
import { ENOUGH_RESIDUAL_DF } from '../plan/limits';
import { sharesPlace } from '../plan/sharing';
import type { Cure } from './rule';

/** What layouts look like to a reader, and cures that lay out anew. */

const emptyDesign: Omit<Design, 'kind' | 'replicates' | 'seed'> = { settings: [], balance: null };

/** Lays the plan out anew; the plan as it is when there is no room. */
export function relaid(plan: Plan, design: Design): Plan {
  const units = layOut(plan, design);
  return units.ok ? { ...plan, design, units: units.value } : plan;
}

/** Units of each treatment; 0 before the layout. */
export const leastReplicates = (plan: Plan) =>
  Math.min(...plan.treatments.map((t) => plan.units.filter((u) => u.treatmentId === t.id).length));

/** Blocks of all treatments that leave 12 residual degrees of freedom. */
export const blocksFor12 = (k: number) => Math.ceil(ENOUGH_RESIDUAL_DF / Math.max(1, k - 1)) + 1;

/** Units of each that leave 12 residual degrees of freedom in the plan's own kind of layout: blocks take some off. */
export const replicatesFor12 = (plan: Plan): number => {
  const k = plan.treatments.length;
  return blockingOf(plan) === 1 ? Math.ceil(ENOUGH_RESIDUAL_DF / Math.max(1, k)) + 1 : blocksFor12(k);
};

export interface Line {
  what: string;
  units: Unit[];
}

/** Whole rows, columns and areas of the plan that hold more than one unit. */
function linesOf(plan: Plan): Line[] {
  return plan.areas.flatMap((area) => {
    const here = plan.units.filter((u) => u.position.areaId === area.id);
    const along = (axis: 'row' | 'column', count: number) =>
      Array.from({ length: count }, (_, i) => ({
        what: `${axis} ${i + 1} of ${area.name}`,
        units: here.filter((u) => u.position[axis] === i),
      }));
    return [
      ...along('row', area.rows),
      ...along('column', area.columns),
      { what: `all of ${area.name}`, units: here },
    ];
  });
}

/** All units of a treatment at the ends are suspect when chance would rarely put them there. */
const END_CHANCE = 0.05;

/** Lines and ends that belong to one treatment. */
export function linesOwned(plan: Plan): Line[] {
  const whole = linesOf(plan).filter(
    (l) => l.units.length > 1 && l.units.every((u) => u.treatmentId === l.units[0]!.treatmentId),
  );
  // Two neighbours of a kind are what chance gives now and then; most of a treatment in such pairs isn't.
  const owned = whole.filter((l) => {
    if (l.units.length > 2) return true;
    const { treatmentId } = l.units[0]!;
    const inLines = new Set(
      whole.flatMap((o) => (o.units[0]!.treatmentId === treatmentId ? o.units.map((u) => u.id) : [])),
    );
    return inLines.size > plan.units.filter((u) => u.treatmentId === treatmentId).length / 2;
  });
  const ends = plan.treatments.flatMap((t): Line[] => {
    const units = plan.units.filter((u) => u.treatmentId === t.id);
    let chance = 1;
    const atEnd = units.every((u) => {
      const area = plan.areas.find((a) => a.id === u.position.areaId);
      if (!area || area.columns < 3) return false;
      chance *= 2 / area.columns;
      return [0, area.columns - 1].includes(u.position.column);
    });
    return units.length > 2 && atEnd && chance < END_CHANCE ? [{ what: 'the ends', units }] : [];
  });
  return [...owned, ...ends];
}

/** Treatments' mean places may lie this share of the way apart. */
const PLACE_TOLERANCE = 0.5;

/** Who stands to which side, in words; empty when the treatments' mean places are near each other. */
export function sidesOf(plan: Plan): string[] {
  const meanPlace = (id: string, axis: 'row' | 'column') => {
    const places = plan.units
      .filter((u) => u.treatmentId === id)
      .flatMap((u) => {
        const area = plan.areas.find((a) => a.id === u.position.areaId)!;
        const last = (axis === 'row' ? area.rows : area.columns) - 1;
        return last > 0 ? [u.position[axis] / last] : [];
      });
    return places.length > 0 ? places.reduce((s, v) => s + v, 0) / places.length : null;
  };
  return (['column', 'row'] as const).flatMap((axis) => {
    const means = plan.treatments.flatMap((t) => {
      const at = meanPlace(t.id, axis);
      return at === null ? [] : [{ t, at }];
    });
    if (means.length < 2) return [];
    const sorted = [...means].sort((x, y) => x.at - y.at);
    const [first, last] = [sorted[0]!, sorted.at(-1)!];
    const sides = axis === 'column' ? ['left', 'right'] : ['back', 'front'];
    return last.at - first.at > PLACE_TOLERANCE
      ? [`${first.t.name} stands mostly to the ${sides[0]}, ${last.t.name} to the ${sides[1]}`]
      : [];
  });
}

/** Draws tried before a layout with a treatment to one side is taken after all. */
const DRAWS = 60;

/** Lays out anew; a draw that gives a treatment a line, an end or a side to itself is drawn again. */
export function fairlyRelaid(plan: Plan, design: Design): Plan {
  let drawn = plan;
  for (let i = 0; i < DRAWS; i++) {
    drawn = relaid(plan, { ...design, seed: (design.seed + i) % 0x100000000 });
    if (linesOwned(drawn).length === 0 && sidesOf(drawn).length === 0) break;
  }
  return drawn;
}

/** A cure that lays out in random complete blocks, where the places have room. */
export function blocksCure(plan: Plan, replicates: number, label: string): Cure | null {
  const wanted = plan.treatments.length * replicates;
  if (plan.treatments.length < 2 || sharesPlace(plan) || wanted > positionsOf(plan.areas).length) return null;
  return {
    label,
    byItself: true,
    apply: (seed) => ({ plan: fairlyRelaid(plan, { kind: 'rcbd', replicates, seed, ...emptyDesign }) }),
  };
}
