import type { Plan, Treatment } from '../model/plan';
import { doseAmount } from '../model/plan';
import type { Arm } from './matching';
import { usesAt } from './programme';

/**
 * What a treatment gets dissolved at a day of the programme: its doses per litre, strength taken in.
 *
 * @param day of the trial; see `usesAt` for days between two feeds
 * @returns no doses for a treatment that gets nothing in water
 */
export const armAt = (plan: Pick<Plan, 'products'>, treatment: Treatment, day: number): Arm => ({
  id: treatment.id,
  doses: usesAt(treatment, day).flatMap((u) => {
    const product = plan.products.find((p) => p.id === u.productId);
    return product ? [{ product, amount: doseAmount(u), unit: u.unit, packId: u.packId }] : [];
  }),
});
