import type { Plan, Treatment } from '../model/plan';

/** The control that others are compared with: untreated first, else base, else the reference. */
export function controlOf(plan: Pick<Plan, 'treatments'>): Treatment | null {
  for (const role of ['untreated', 'base', 'reference'] as const) {
    const found = plan.treatments.find((t) => t.role === role);
    if (found) return found;
  }
  return null;
}
