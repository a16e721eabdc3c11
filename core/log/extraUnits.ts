import type { Area, Plan, Unit } from '../model/plan';

/** Why an extra unit is in no finding unless asked for. */
export const EXTRA_UNIT = 'extra: added after the seal, not drawn by lot';

/**
 * The plan with the units that were added to it since. The sealed plan stays what it was; this is what is walked,
 * measured and shown.
 * @param extras in the order they were added; those the plan has already are passed over
 */
export function withExtraUnits(plan: Plan, extras: readonly { unit: Unit; beside?: Area }[]): Plan {
  const known = new Set<string>(plan.units.map((u) => u.id));
  const fresh = extras.filter(
    ({ unit }) => !known.has(unit.id) && plan.treatments.some((t) => t.id === unit.treatmentId),
  );
  if (fresh.length === 0) return plan;
  const areas = new Map(plan.areas.map((a) => [a.id, a]));
  for (const { beside } of fresh) if (beside && !areas.has(beside.id)) areas.set(beside.id, beside);
  return { ...plan, areas: [...areas.values()], units: [...plan.units, ...fresh.map((e) => e.unit)] };
}

/** The code of the next unit: one more than the highest. @example nextCode([PAR-01 … PAR-20]) // 'PAR-21' */
export function nextCode(plan: Pick<Plan, 'code' | 'units'>): string {
  const highest = Math.max(0, ...plan.units.map((u) => Number(/(\d+)$/.exec(u.code)?.[1] ?? 0)));
  const width = Math.max(2, ...plan.units.map((u) => /(\d+)$/.exec(u.code)?.[1]?.length ?? 0));
  return `${plan.code}-${String(highest + 1).padStart(width, '0')}`;
}
