import { letterOf } from '~core/design/blinding';
import { ofKind } from '~core/log/resolve';
import { type Filling, fillingsOf } from '~core/log/waterUse';
import type { ReadingAt } from '~core/mixing/drift';
import type { Titration } from '~core/mixing/phCorrection';
import type { TreatmentId, UnitId } from '~core/model/ids';
import type { TargetBand } from '~core/model/plan';
import type { MixingData } from './mixing';

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

type Source = Pick<MixingData, 'plan' | 'shown' | 'living' | 'state'>;

/** Bottles first, then the living units; each with its readings and fillings in order. */
export function vesselsOf({ plan, shown, living, state }: Source): Vessel[] {
  const readings = ofKind(state.entries, 'reading');
  const titrations = ofKind(state.entries, 'phDose').map(({ body, at }) => ({ ...body, at }));
  const of = (unitId: UnitId | null, treatmentId: TreatmentId): Vessel['readings'] => {
    const list = (quantity: 'ec' | 'ph' | 'temperature') =>
      readings
        .filter(
          ({ body: b }) =>
            b.quantity === quantity &&
            b.unitId === unitId &&
            (unitId !== null || b.treatmentId === treatmentId),
        )
        .map((e) => ({ at: e.at, value: e.body.value }))
        .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
    return { ec: list('ec'), ph: list('ph'), temperature: list('temperature') };
  };
  const fed = (id: TreatmentId) => plan.treatments.some((t) => t.id === id && t.products.length > 0);
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
    const index = shown.treatments.findIndex((t) => t.id === u.treatmentId);
    return {
      key: u.id,
      name: `${u.code}, ${shown.treatments[index]?.name ?? ''}`,
      unitId: u.id,
      treatmentId: u.treatmentId,
      index,
      fed: fed(u.treatmentId),
      readings: of(u.id, u.treatmentId),
      fillings: fillingsOf(state.entries, u.id),
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
