import { letterOf } from '../plan/letters';
import { type TrialState, ofKind } from '../log/state';
import { type Filling, fillingsByUnit } from '../log/waterUse';
import { planIndex } from '../plan/planIndex';
import type { ReadingAt } from './drift';
import type { Titration } from './phCorrection';
import type { TreatmentId, UnitId } from '../model/ids';
import type { Plan, TargetBand, Unit } from '../model/plan';

/** A vessel that is read: a unit, or the bottle a treatment is mixed in. */
export interface Vessel {
  key: string;
  name: string;
  unitId: UnitId | null;
  treatmentId: TreatmentId;
  /** of the tile */
  index: number;
  /** it holds feed, not water alone */
  fed: boolean;
  readings: Record<'ec' | 'ph' | 'temperature', ReadingAt[]>;
  fillings: Filling[];
  titrations: Titration[];
}

/** For vessels of plain water. */
export const noBand: TargetBand = { ecLow: null, ecHigh: null, phLow: null, phHigh: null, source: '' };

interface VesselSource {
  plan: Plan;
  /** under codes while the trial is blind */
  shown: Plan;
  living: readonly Unit[];
  state: TrialState;
}

/** A unit is read as itself; readings without one belong to their treatment's bottle. */
const keyOf = (unitId: UnitId | null, treatmentId: TreatmentId | null): string =>
  unitId ?? `bottle ${treatmentId ?? ''}`;

/** Bottles first, then the living units; each with its readings and fillings in order. */
export function vesselsOf({ plan, shown, living, state }: VesselSource): Vessel[] {
  // One pass over the readings, whatever the number of vessels.
  const readings = new Map<string, Vessel['readings']>();
  const of = (unitId: UnitId | null, treatmentId: TreatmentId): Vessel['readings'] =>
    readings.get(keyOf(unitId, treatmentId)) ?? { ec: [], ph: [], temperature: [] };
  for (const { body: b, at } of ofKind(state, 'reading')) {
    if (b.quantity !== 'ec' && b.quantity !== 'ph' && b.quantity !== 'temperature') continue;
    const key = keyOf(b.unitId, b.treatmentId);
    let own = readings.get(key);
    if (!own) readings.set(key, (own = { ec: [], ph: [], temperature: [] }));
    own[b.quantity].push({ at, value: b.value });
  }
  const titrations = ofKind(state, 'phDose').map(({ body, at }) => ({ ...body, at }));
  const fillings = fillingsByUnit(state);
  const fed = (id: TreatmentId) => (planIndex(plan).treatment(id)?.products.length ?? 0) > 0;
  const bottles = shown.treatments.map((t, index): Vessel => ({
    key: `bottle ${t.id}`,
    name: `Bottle ${letterOf(index)}, ${t.name}`,
    unitId: null,
    treatmentId: t.id,
    index,
    fed: fed(t.id),
    readings: of(null, t.id),
    fillings: [],
    // What was seen in one vessel of a treatment holds for the same solution in its other vessels.
    titrations: titrations.filter((x) => x.treatmentId === t.id),
  }));
  const units = living.map((u): Vessel => {
    const index = planIndex(shown).treatmentOrder(u.treatmentId);
    return {
      key: u.id,
      name: `${u.code}, ${shown.treatments[index]?.name ?? ''}`,
      unitId: u.id,
      treatmentId: u.treatmentId,
      index,
      fed: fed(u.treatmentId),
      readings: of(u.id, u.treatmentId),
      fillings: fillings.get(u.id) ?? [],
      titrations: titrations.filter((x) => x.treatmentId === u.treatmentId),
    };
  });
  return [...bottles, ...units];
}

/** What a reading or a correction of this vessel is written down as. */
export const vesselFields = (v: Vessel) => ({
  unitId: v.unitId,
  treatmentId: v.treatmentId,
  subject: v.name.slice(0, 80),
});
