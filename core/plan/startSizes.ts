import type { UnitId } from '../model/ids';
import type { Plan, Treatment } from '../model/plan';

/** What a treatment's units measured at the start. */
interface StartSizes {
  treatment: Treatment;
  n: number;
  /** null where none was measured */
  mean: number | null;
  least: number | null;
  most: number | null;
}

/**
 * Start sizes by treatment, and how far the treatments' means lie apart.
 *
 * @param sizes size at the start by unit, in any unit the reviewer keeps to
 * @returns spread in per cent of the grand mean; null with fewer than two means
 * @example startSizes(plan, new Map([['a', 9], ['b', 11]])).spreadPercent // 20
 */
export function startSizes(
  plan: Pick<Plan, 'treatments' | 'units'>,
  sizes: Pick<ReadonlyMap<UnitId, number>, 'get'>,
): { rows: StartSizes[]; spreadPercent: number | null } {
  const rows = plan.treatments.map((treatment): StartSizes => {
    const own = plan.units.flatMap((u) => {
      const size = u.treatmentId === treatment.id ? sizes.get(u.id) : undefined;
      return size === undefined ? [] : [size];
    });
    const some = own.length > 0;
    return {
      treatment,
      n: own.length,
      mean: some ? own.reduce((s, v) => s + v, 0) / own.length : null,
      least: some ? Math.min(...own) : null,
      most: some ? Math.max(...own) : null,
    };
  });
  const means = rows.flatMap((r) => (r.mean === null ? [] : [r.mean]));
  const grand = means.reduce((s, v) => s + v, 0) / means.length;
  return {
    rows,
    spreadPercent:
      means.length > 1 && grand > 0 ? (100 * (Math.max(...means) - Math.min(...means))) / grand : null,
  };
}

/** Start sizes as the plan has them. */
export const plannedStartSizes = (plan: Pick<Plan, 'units'>): Map<UnitId, number> =>
  new Map(plan.units.flatMap((u) => (u.startSize === null ? [] : [[u.id, u.startSize]])));
