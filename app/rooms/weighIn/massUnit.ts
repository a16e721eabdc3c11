import { type WeightUnit, weightUnits } from '~core/quantity/amount';

const keyOf = (trialId: string) => `palazzo-mass-unit/${trialId}`;

/** The unit a trial was last weighed in on this device. */
export function massUnitOf(trialId: string): WeightUnit {
  const stored = localStorage.getItem(keyOf(trialId));
  return weightUnits.find((u) => u === stored) ?? 'g';
}

/** Weighing goes on in this unit. */
export const keepMassUnit = (trialId: string, unit: WeightUnit): void =>
  localStorage.setItem(keyOf(trialId), unit);
