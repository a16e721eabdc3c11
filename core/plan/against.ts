import type { Plan, Treatment } from '../model/plan';
import { controlOf, comparesPeers } from './control';
import { asListed } from './letters';
import { ownControl } from './ownControl';

/** A contender and what it is held against: its own control wherever there is one. */
export interface Against {
  id: string;
  control: string;
}

/** All that a contender is given or stands in; plants themselves are the ground it is tried on. */
function given(t: Treatment): string {
  const { crop: _crop, variety: _variety, seedLot: _lot, startSize: _size, ...conditions } = t.conditions;
  const { products, flushDays, container, medium, light, system, water } = t;
  return JSON.stringify({ products, flushDays, container, medium, light, system, water, conditions });
}

/** Whether a factor changes nothing that is given: species, seed lots, places. Its levels are grounds, not contenders. */
function isGround(plan: Pick<Plan, 'treatments' | 'factors'>, factor: string): boolean {
  const alikeBut = (a: Treatment, b: Treatment) =>
    a !== b &&
    a.levels[factor] !== b.levels[factor] &&
    plan.factors.every((f) => f.name === factor || a.levels[f.name] === b.levels[f.name]);
  const whole = plan.treatments.filter((t) => plan.factors.every((f) => t.levels[f.name] !== undefined));
  const gets = new Map(whole.map((t) => [t.id, given(t)]));
  const pairs = whole.flatMap((a) => whole.filter((b) => alikeBut(a, b)).map((b) => [a.id, b.id] as const));
  return pairs.length > 0 && pairs.every(([a, b]) => gets.get(a) === gets.get(b));
}

/**
 * The ground each contender is tried on: its plants, and levels of factors that change nothing that is given. Contenders
 * on two grounds (two species) aren't held against each other.
 *
 * @returns one text for each contender; the same for all in a plain comparison
 * @example groundsOf(plan) // Map { 'iba·sage' → 'sage', 'iba·marigold' → 'marigold', … }
 */
export function groundsOf(plan: Pick<Plan, 'treatments' | 'factors'>): ReadonlyMap<string, string> {
  const factors = plan.factors.filter((f) => isGround(plan, f.name));
  // Other plants alone are a fault that the audit names; they are a ground where each has a control of its own.
  const plants = (t: Treatment) => [t.conditions.crop, t.conditions.variety].join('|').trim().toLowerCase();
  const controls = plan.treatments.filter((t) => t.role !== 'test');
  const everyPlant = new Set(plan.treatments.map(plants));
  const byPlants = everyPlant.size > 1 && [...everyPlant].every((p) => controls.some((c) => plants(c) === p));
  return new Map(
    plan.treatments.map((t) => [
      t.id as string,
      JSON.stringify([byPlants ? plants(t) : '', ...factors.map((f) => t.levels[f.name] ?? '')]),
    ]),
  );
}

/**
 * What every contender is held against: its own control in a factorial, the control on its own ground, else the control
 * of the trial. Nothing among equals.
 *
 * @example againstIn(plan) // [{ id: 'iba·sage', control: 'none·sage' }, { id: 'iba·marigold', control: 'none·marigold' }]
 */
export function againstIn(plan: Pick<Plan, 'treatments' | 'factors' | 'peers' | 'listed'>): Against[] {
  if (comparesPeers(plan)) return [];
  const grounds = groundsOf(plan);
  const listed = asListed(plan);
  return listed.flatMap((t) => {
    const own = ownControl(listed, plan.factors, t);
    if (own) return [{ id: t.id, control: own.id }];
    const here = controlOf({ treatments: listed.filter((o) => grounds.get(o.id) === grounds.get(t.id)) });
    return here && here.id !== t.id ? [{ id: t.id, control: here.id }] : [];
  });
}
