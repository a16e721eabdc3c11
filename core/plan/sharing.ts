import type { Plan, Unit } from '../model/plan';
import { countOf } from '../quantity/format';
import { planIndex } from './planIndex';

type Placed = Pick<Plan, 'units' | 'areas' | 'unitsShare'>;

/** Rooms and vessels whose air or water all in them share. */
const closed: ReadonlySet<Plan['areas'][number]['kind']> = new Set(['tent', 'tank', 'greenhouse']);

/** What stands in each area, by contender. */
function groups(units: readonly Unit[]): Map<string, Unit[]> {
  const by = new Map<string, Unit[]>();
  for (const u of units) {
    const key = `${u.position.areaId}\n${u.treatmentId}`;
    by.set(key, [...(by.get(key) ?? []), u]);
  }
  return by;
}

/**
 * Whether what stands in one area got its treatment together, so that the area is the unit and what stands in it are its
 * samples: because the plan says so, or because tents, tanks or houses hold one contender each and the plan says nothing.
 *
 * @example sharesPlace(plan) // true: a tent for water culture, a tent for soil, two plants in each
 */
export function sharesPlace(plan: Placed): boolean {
  if (plan.unitsShare !== undefined) return plan.unitsShare === 'place';
  const used = plan.areas.filter((a) => plan.units.some((u) => u.position.areaId === a.id));
  const together = [...groups(plan.units).values()];
  return (
    used.length > 1 &&
    together.length === used.length &&
    together.some((g) => g.length > 1) &&
    used.every((a) => closed.has(a.kind))
  );
}

/** What got its treatment on its own: the unit; where units share their place, all of a contender in one area. */
export interface ExperimentalUnit {
  /** of the first where several share a place */
  unit: Unit;
  members: readonly Unit[];
  /** as a reader calls it: the unit's code, or the place with how many stand in it */
  name: string;
}

const known = new WeakMap<Placed, ExperimentalUnit[]>();

/** The experimental units of a plan, in its order. */
export function experimentalUnits(plan: Plan): readonly ExperimentalUnit[] {
  let made = known.get(plan);
  if (!made) {
    made = sharesPlace(plan)
      ? [...groups(plan.units).values()].map((members) => ({
          unit: members[0]!,
          members,
          name: planIndex(plan).area(members[0]!.position.areaId)?.name ?? members[0]!.code,
        }))
      : plan.units.map((unit) => ({ unit, members: [unit], name: unit.code }));
    known.set(plan, made);
  }
  return made;
}

/** How many experimental units a contender has. */
export const replicatesOf = (plan: Plan, treatmentId: string): number =>
  experimentalUnits(plan).filter((e) => e.unit.treatmentId === treatmentId).length;

/**
 * What so many places of each contender can tell, where what stands in a place shares it.
 * @example sayShared(2, 1, 'tent') // 'One tent of each is one repeat each: numbers, and no winner.'
 */
export const sayShared = (contenders: number, places: number, noun: string): string =>
  places === 1
    ? `One ${noun} of each is one repeat each: numbers, and no winner.`
    : `${countOf(contenders * places, noun)}, ${places} repeats of each. What stands in one is its samples.`;

/** What an experimental unit is called: the unit; where units share their place, what the places are. @example 'tent' */
export function experimentalNoun(plan: Plan): string {
  if (!sharesPlace(plan)) return plan.unitNoun;
  const kinds = new Set(
    experimentalUnits(plan).map((e) => planIndex(plan).area(e.unit.position.areaId)?.kind),
  );
  return kinds.size === 1 ? ([...kinds][0] ?? 'place') : 'place';
}

/**
 * What a value stands for in a picture or a table: a unit; where units share their area, a unit on the mean of it.
 * @example measuredPer(plan) // 'plant, mean of a tent'
 */
export const measuredPer = (plan: Plan): string =>
  sharesPlace(plan) ? `${plan.unitNoun}, mean of a ${experimentalNoun(plan)}` : plan.unitNoun;
