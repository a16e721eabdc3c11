import type { TreatmentId } from '../model/ids';
import type { BlindKey } from '../log/trial';
import { blankTreatment } from '../model/blankPlan';
import type { Plan } from '../model/plan';
import { letterOf } from '../plan/letters';
import { sha256Of } from '../plan/seal';
import { seededRandom } from '../stats/random';

/** Deals codes to treatments at random. */
export const dealCodes = (ids: readonly TreatmentId[], seed: number): BlindKey => ({
  order: seededRandom(seed).shuffle(ids),
});

/** Whether a key has a code for every treatment and none beside. */
export const keyFits = (key: BlindKey, plan: Pick<Plan, 'treatments'>): boolean =>
  key.order.length === plan.treatments.length && plan.treatments.every((t) => key.order.includes(t.id));

/** The plan with its contenders in the order of their codes: the first has the letter A, its tile, and so on. */
export const inLetterOrder = (plan: Plan, key: BlindKey): Plan => ({
  ...plan,
  listed: plan.treatments.map((t) => t.id),
  treatments: [
    ...key.order.flatMap((id) => plan.treatments.filter((t) => t.id === id)),
    ...plan.treatments.filter((t) => !key.order.includes(t.id)),
  ],
});

/**
 * The plan as someone sees it who doesn't know the key: treatments in the order of their codes, called by
 * them, without role, products or anything else that would give them away. Ids stay, so that what is
 * logged against it is right.
 */
export function maskedPlan(plan: Plan, key: BlindKey): Plan {
  const { treatments: coded, listed: _listed, ...rest } = inLetterOrder(plan, key);
  return {
    ...rest,
    products: [],
    factors: [],
    treatments: coded.map((t, i) => blankTreatment(`Code ${letterOf(i)}`, 'test', t.id)),
  };
}

/**
 * An order of codes for a device that doesn't have the key: the same on each, and telling nothing of the real
 * one. Letters by it aren't those on the bottle tags; units are found by their own codes.
 */
export const placeholderKey = (plan: Pick<Plan, 'id' | 'treatments'>): BlindKey =>
  dealCodes(plan.treatments.map((t) => t.id).sort(), Number.parseInt(sha256Of(plan.id).slice(0, 8), 16));
