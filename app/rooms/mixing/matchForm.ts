import { z } from 'zod';
import { ElementSymbol } from '~core/model/element';
import { ProductId, TreatmentId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';

/** Doses made equal are written into the plan: each treatment's factor per product use. */
export const MatchForm = z.object({
  intent: z.literal('match'),
  matchedOn: z.enum(['label', 'nitrogen', 'strength', 'money']),
  element: ElementSymbol,
  factors: z.array(
    z.object({ treatmentId: TreatmentId, productId: ProductId, factor: z.number().positive().max(1e6) }),
  ),
});

/** The plan with every use of these products times its factor. */
export const applyMatch = (plan: Plan, f: z.output<typeof MatchForm>): Plan => ({
  ...plan,
  matchedOn: f.matchedOn,
  mixing: { ...plan.mixing, matchedElement: f.element },
  treatments: plan.treatments.map((t) => ({
    ...t,
    products: t.products.map((u) => {
      const factor =
        f.factors.find((x) => x.treatmentId === t.id && x.productId === u.productId)?.factor ?? 1;
      return Math.abs(factor - 1) < 1e-9
        ? u
        : { ...u, amount: Number((u.amount * factor).toPrecision(6)), rateText: '' };
    }),
  })),
});
