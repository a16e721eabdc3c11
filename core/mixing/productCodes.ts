import { letterOf } from '../plan/letters';
import type { ProductId, TreatmentId } from '../model/ids';
import type { Plan } from '../model/plan';
import type { BlindKey } from '../log/trial';

/** A jar or bottle that a product was filled into under a code, so that who mixes doesn't know what it is. */
interface ProductCode {
  /** e.g. A1: the first product of code A */
  code: string;
  treatmentId: TreatmentId;
  productId: ProductId;
}

/** Key of a product within a treatment, for maps. */
export const productCodeKey = (treatmentId: string, productId: string): string =>
  `${treatmentId}/${productId}`;

/**
 * A code for every product of every treatment: its letter and a number.
 *
 * @param key the blinding key; without one treatments keep their order
 * @example productCodesOf(plan, key)[0] // { code: 'A1', … }
 */
export function productCodesOf(plan: Pick<Plan, 'treatments'>, key: BlindKey | null): ProductCode[] {
  const order = key?.order ?? plan.treatments.map((t) => t.id);
  return order.flatMap((id, i) => {
    const t = plan.treatments.find((x) => x.id === id);
    const products = [...new Set(t?.products.map((u) => u.productId))];
    return products.map((productId, n) => ({ code: `${letterOf(i)}${n + 1}`, treatmentId: id, productId }));
  });
}

/** Jar codes by treatment and product. */
export const codesByProduct = (jars: readonly ProductCode[]): Map<string, string> =>
  new Map(jars.map((j) => [productCodeKey(j.treatmentId, j.productId), j.code]));
