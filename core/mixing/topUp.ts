import type { TreatmentId } from '../model/ids';
import type { Plan } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { armAt } from './armAt';
import { toStrengthen, toDilute } from './vesselContent';
import { type DosePerL, solutionOf } from './solution';
import { meqAt } from './strength';

/** A solution nearer than this to what is wanted has it, mS/cm: meters don't show less. */
const NEAR_ENOUGH = 0.02;

/** What brings a vessel to a strength. */
type StrengthCorrection =
  | { tag: 'there' }
  /** water to pour in, L; null where the water is as strong as what is wanted */
  | { tag: 'dilute'; addL: number | null }
  /** the label gives no analysis to reckon with */
  | { tag: 'unknown' }
  /** so much of the planned dose */
  | { tag: 'strengthen'; perDoseEc: number; doses: { dose: DosePerL; amount: number }[] };

/**
 * Water to dilute a solution, or so much of the treatment's planned dose to strengthen it, by the estimate from the
 * label.
 *
 * @param day of the trial, whose doses are meant
 * @param held what is in the vessel: litres, and mS/cm at 25 °C
 * @param target mS/cm wanted
 */
export function strengthCorrection(
  plan: Plan,
  treatmentId: TreatmentId,
  day: number,
  held: { volumeL: number; ec: number },
  target: number,
): StrengthCorrection {
  const water = plan.mixing.water.ec ?? 0;
  if (Math.abs(held.ec - target) < NEAR_ENOUGH) return { tag: 'there' };
  if (held.ec > target) return { tag: 'dilute', addL: toDilute(held, target, water) };
  const treatment = planIndex(plan).treatment(treatmentId);
  const doses = treatment ? armAt(plan, treatment, day).doses : [];
  const solution = solutionOf(doses, plan.mixing.water);
  const perDoseEc = solution.strength.ec - water;
  if (doses.length === 0 || solution.unknown.length > 0 || perDoseEc <= NEAR_ENOUGH) {
    return { tag: 'unknown' };
  }
  // In charges, which add up whatever is in the vessel already; the formula's constant is in it once.
  const perDose = meqAt(solutionOf(doses, null).strength.ec);
  const times = toStrengthen({ ...held, ec: meqAt(held.ec) }, meqAt(target), perDose);
  return {
    tag: 'strengthen',
    perDoseEc,
    doses: doses.map((dose) => ({ dose, amount: dose.amount * times })),
  };
}
