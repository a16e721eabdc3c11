import type { TreatmentId } from '../model/ids';
import type { Matching, Plan } from '../model/plan';
import { armAt } from './armAt';
import { type MatchBasis, type MatchedArm, matchDoses } from './matching';

/** How doses are to be made equal: on what, on which day's doses, and after whom. */
export interface Match {
  basis: MatchBasis;
  /** day of the trial whose doses are looked at */
  day: number;
  /** the treatment the others are matched to; null: the first that has doses */
  referenceId: TreatmentId | null;
}

/** The doses of a plan's treatments made equal, a row each; the plan isn't changed. */
export const matchedArms = (plan: Plan, { basis, day, referenceId }: Match): MatchedArm[] =>
  matchDoses(
    plan.treatments.map((t) => armAt(plan, t, day)),
    basis,
    referenceId,
    { water: plan.mixing.water, currency: plan.currency, exchange: plan.mixing.exchange },
  );

const schoolOf: Record<MatchBasis['kind'], Matching> = {
  asIs: 'asIs',
  label: 'label',
  element: 'element',
  strength: 'strength',
  money: 'money',
};

/**
 * The plan with its doses made equal: every use of a product times its factor, six figures.
 * @example applyMatch(plan, { basis: { kind: 'element', element: 'N' }, day: 0, referenceId: null })
 */
export function applyMatch(plan: Plan, match: Match): Plan {
  const matched = matchedArms(plan, match);
  const { basis } = match;
  return {
    ...plan,
    matchedOn: schoolOf[basis.kind],
    mixing: basis.kind === 'element' ? { ...plan.mixing, matchedElement: basis.element } : plan.mixing,
    treatments: plan.treatments.map((t) => {
      const arm = matched.find((m) => m.id === t.id);
      return {
        ...t,
        products: t.products.map((u) => {
          const factor = arm?.doses.find((d) => d.product.id === u.productId)?.factor ?? 1;
          return Math.abs(factor - 1) < 1e-9
            ? u
            : { ...u, amount: Number((u.amount * factor).toPrecision(6)), rateText: '' };
        }),
      };
    }),
  };
}
