import type { Area, Plan, Round, Trait, Treatment, Unit } from '../model/plan';
import type { Product } from '../model/product';

/** The things of a plan by their ids. */
export interface PlanIndex {
  unit: (id: string) => Unit | undefined;
  treatment: (id: string) => Treatment | undefined;
  /** place of a treatment in the plan's order, which gives it its tile; -1 when unknown */
  treatmentOrder: (id: string) => number;
  trait: (id: string) => Trait | undefined;
  round: (id: string) => Round | undefined;
  product: (id: string) => Product | undefined;
  area: (id: string) => Area | undefined;
  unitsOf: (treatmentId: string) => readonly Unit[];
}

const known = new WeakMap<Plan, PlanIndex>();

const byId = <T extends { id: string }>(items: readonly T[]) => {
  const map = new Map<string, T>(items.map((item) => [item.id, item]));
  return (id: string) => map.get(id);
};

function makeIndex(plan: Plan): PlanIndex {
  const order = new Map<string, number>(plan.treatments.map((t, i) => [t.id, i]));
  const units = new Map<string, Unit[]>();
  for (const u of plan.units) {
    const list = units.get(u.treatmentId);
    if (list) list.push(u);
    else units.set(u.treatmentId, [u]);
  }
  return {
    unit: byId(plan.units),
    treatment: byId(plan.treatments),
    treatmentOrder: (id) => order.get(id) ?? -1,
    trait: byId(plan.traits),
    round: byId(plan.rounds),
    product: byId(plan.products),
    area: byId(plan.areas),
    unitsOf: (id) => units.get(id) ?? [],
  };
}

/**
 * The index of a plan, made once for each plan: plans are never changed in place.
 * @example planIndex(plan).unit('u1')?.code // 'SUN-01'
 */
export function planIndex(plan: Plan): PlanIndex {
  let index = known.get(plan);
  if (!index) known.set(plan, (index = makeIndex(plan)));
  return index;
}
