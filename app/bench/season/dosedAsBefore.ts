import type { Plan } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { productsOf } from '~core/standings/overTrials';

/** Where no label says a dose, the one of the newest trial the contender stood in; what nobody ever dosed stays open. */
export function dosedAsBefore(plan: Plan, plans: readonly Plan[], library: readonly Product[]): Plan {
  const newest = [...plans].sort((a, b) => b.startDate.localeCompare(a.startDate));
  const products = new Map(plan.products.map((p) => [p.id, p]));
  const treatments = plan.treatments.map((t) => {
    if (t.products.length > 0 || t.role !== 'test') return t;
    for (const p of newest) {
      const before = p.treatments.find((x) => productsOf(p, x) === t.name && x.products.length > 0);
      if (!before) continue;
      for (const { productId } of before.products) {
        const own = library.find((x) => x.id === productId) ?? p.products.find((x) => x.id === productId);
        if (own) products.set(own.id, own);
      }
      const uses = before.products.map((u) => ({
        ...u,
        packId: products.get(u.productId)?.packs.some((k) => k.id === u.packId) ? u.packId : null,
      }));
      return { ...t, products: uses };
    }
    return t;
  });
  return { ...plan, treatments, products: [...products.values()] };
}
