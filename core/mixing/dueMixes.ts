import type { TreatmentId, UnitId } from '../model/ids';
import type { Plan, ProductUse, Treatment, Way } from '../model/plan';
import { type Product, isDosed } from '../model/product';
import { planIndex } from '../plan/planIndex';
import { joined } from './apart';
import { mixedInUnits } from './ownTank';
import { isDueOn } from './programme';

/** Something to be made up on a day: what goes into one vessel, or straight to the units. */
export interface DueMix {
  treatmentId: TreatmentId;
  /**
   * - solution: products in water
   * - direct: a dose to each unit as it is
   * - water: the same water without anything, for who gets no product
   * - flush: plain water in place of feed
   */
  kind: 'solution' | 'direct' | 'water' | 'flush';
  uses: ProductUse[];
  /** left out: in the day's water, or as it is */
  way?: Way;
  /** solution or water for each unit, L; null for `direct` and where nobody has said */
  perUnitL: number | null;
  unitIds: UnitId[];
  /** units whose own tank it is mixed in, one by one; null: one batch, handed out */
  tanks: number | null;
}

/** Whether a product is given; what is stood in its place once (a pole, a pot, a lamp) isn't mixed and given. */
export const isGiven = ({ solutionLPerUnit }: ProductUse, product: Product | undefined): boolean =>
  solutionLPerUnit !== null || product === undefined || isDosed(product.category);

/** What goes into one vessel: the same water, given in the same way; what comes after the other stands after it. */
function vesselsOf(uses: readonly ProductUse[]): ProductUse[][] {
  const groups = new Map<string, ProductUse[]>();
  for (const u of uses) {
    const key = `${u.solutionLPerUnit} ${u.way}`;
    groups.set(key, [...(groups.get(key) ?? []), u]);
  }
  const all = [...groups.values()];
  return [...all.filter(([u]) => u!.way !== 'after'), ...all.filter(([u]) => u!.way === 'after')];
}

/** The solution a unit of this treatment gets when nothing else says how much. */
const usualVolume = (treatments: readonly Treatment[]): number | null =>
  Math.max(0, ...treatments.flatMap((t) => t.products.map((u) => u.solutionLPerUnit ?? 0))) || null;

/**
 * What is to be mixed on a day, for every treatment with living units.
 *
 * A flush day takes the place of all feed. A treatment without products gets plain water on every day on
 * which another one is fed: a control gets the same water.
 *
 * @param day of the trial
 * @param living units that still want something
 * @param anyDay take in uses without fixed days too
 */
export function dueMixes(
  plan: Plan,
  day: number,
  living: readonly { id: UnitId; treatmentId: TreatmentId }[],
  anyDay = false,
): DueMix[] {
  const due: DueMix[] = [];
  const given = (u: ProductUse) => isGiven(u, planIndex(plan).product(u.productId));
  const inUnits = mixedInUnits(plan);
  for (const t of plan.treatments) {
    const unitIds = living.filter((u) => u.treatmentId === t.id).map((u) => u.id);
    if (unitIds.length === 0) continue;
    const tanks = inUnits ? unitIds.length : null;
    const base = { treatmentId: t.id, unitIds, tanks };
    if (t.flushDays.includes(day)) {
      due.push({
        ...base,
        kind: 'flush',
        uses: [],
        perUnitL: usualVolume([t]) ?? usualVolume(plan.treatments),
      });
      continue;
    }
    const uses = joined(
      t.products
        .filter(given)
        .filter((u) => isDueOn(u, day) || (anyDay && u.fromDay === null && u.everyDays === null)),
    );
    for (const group of vesselsOf(uses)) {
      const { solutionLPerUnit: perUnitL, way } = group[0]!;
      const kind = perUnitL === null ? 'direct' : 'solution';
      // A spray is mixed by itself, whatever the unit's own tank holds.
      const own = kind === 'direct' || way === 'spray' ? { tanks: null } : {};
      due.push({ ...base, kind, uses: group, perUnitL, ...own, ...(way && { way }) });
    }
  }
  const wet = due.filter((d) => d.kind !== 'direct');
  const watered = wet.filter((d) => d.way !== 'spray');
  const fed = watered.length > 0 ? watered : wet;
  if (fed.length > 0) {
    const perUnitL = Math.max(0, ...fed.map((d) => d.perUnitL ?? 0)) || null;
    for (const t of plan.treatments.filter((x) => x.products.length === 0)) {
      const unitIds = living.filter((u) => u.treatmentId === t.id).map((u) => u.id);
      if (unitIds.length > 0 && !due.some((d) => d.treatmentId === t.id)) {
        const tanks = inUnits ? unitIds.length : null;
        due.push({ treatmentId: t.id, kind: 'water', uses: [], perUnitL, unitIds, tanks });
      }
    }
  }
  const rank = new Map(plan.treatments.map((t, i) => [t.id, i]));
  return due.sort((a, b) => rank.get(a.treatmentId)! - rank.get(b.treatmentId)!);
}

/** Litres one vessel wants: what the units get, with some to spare; of a unit's own tank what it holds. */
export const batchVolume = (
  due: Pick<DueMix, 'perUnitL' | 'unitIds' | 'tanks'>,
  sparePercent: number,
): number | null =>
  due.perUnitL === null || due.tanks !== null
    ? due.perUnitL
    : Number((due.perUnitL * due.unitIds.length * (1 + sparePercent / 100)).toPrecision(10));
