import type { Trait, Unit } from '../model/plan';
import { positionKey } from '../model/positions';
import { divisorOf, groundOf } from '../plan/divisor';
import { planIndex } from '../plan/planIndex';
import { plantsIn } from './stand';
import type { TrialState } from './state';
import { fillingsByUnit } from './waterUse';

/** kWh of a lamp. @param watts of it; @param hours a day. @example kilowattHours(60, 16, 30) // 28.8 */
export const kilowattHours = (watts: number, hours: number, days: number): number =>
  (watts * hours * days) / 1000;

/** Photon flux at a unit: as it was read at its position, else as its treatment says; µmol m⁻² s⁻¹. */
function fluxAt(state: TrialState, unit: Unit): number | null {
  const { gradient } = state.plan;
  const position = positionKey(state.positions.get(unit.id) ?? unit.position);
  const read =
    gradient && /mol/i.test(gradient.unit)
      ? gradient.readings.find((r) => positionKey(r.position) === position)
      : undefined;
  return read?.value ?? planIndex(state.plan).treatment(unit.treatmentId)?.conditions.ppfd ?? null;
}

/**
 * What a unit's figure is divided by before units are compared, from plan and log: plants as they were counted, litres
 * that went in, kWh and mol of light until the day of the value, grams of nitrogen that were planned or given.
 *
 * @param day of the trial on which the value was taken
 * @param nitrogenG nitrogen one unit of a treatment gets, g; null where it isn't known
 * @returns null where it isn't known, or is nothing
 */
export function givenDivisor(
  state: TrialState,
  unit: Unit,
  trait: Pick<Trait, 'per'>,
  day: number,
  nitrogenG: (treatmentId: string) => number | null = () => null,
): number | null {
  const conditions = planIndex(state.plan).treatment(unit.treatmentId)?.conditions;
  const hours = conditions?.lampHours ?? null;
  switch (trait.per) {
    case 'plant': {
      // Plants that were counted go before plants that were planned.
      const seen = plantsIn(state, unit.id);
      return seen === null ? divisorOf(state.plan, unit, trait) : seen || null;
    }
    case 'water':
      return (fillingsByUnit(state).get(unit.id) ?? []).reduce((s, f) => s + f.volumeL, 0) || null;
    case 'energy':
      return conditions?.lampW && hours ? kilowattHours(conditions.lampW, hours, day) || null : null;
    case 'light': {
      const [flux, ground] = [fluxAt(state, unit), groundOf(state.plan, unit)];
      // µmol m⁻² s⁻¹ over the hours of a day: 0.0036 mol m⁻² d⁻¹ each (daily light integral).
      return flux && ground && hours ? flux * hours * 0.0036 * ground * day || null : null;
    }
    case 'nitrogen':
      return nitrogenG(unit.treatmentId) || null;
    case 'day':
      return day || null;
    default:
      return divisorOf(state.plan, unit, trait);
  }
}
