import type { TreatmentId } from '../model/ids';
import type { Matching, Plan, Treatment } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { armAt } from './armAt';
import { type Around, type MatchBasis, type MatchedArm, matchDoses } from './matching';
import { elementPerUnit } from './perUnit';

/** How doses are to be made equal: on what, on which day's doses, and after whom. */
export interface Match {
  basis: MatchBasis;
  /** day of the trial whose doses are looked at */
  day: number;
  /** the treatment the others are matched to; null: the first that has doses */
  referenceId: TreatmentId | null;
}

/** What doses of a plan are matched within: its water, its money, and what its units get. */
export const aroundOf = (plan: Plan): Around => ({
  water: plan.mixing.water,
  currency: plan.currency,
  exchange: plan.mixing.exchange,
  unitGets: (id, element) => {
    const treatment = planIndex(plan).treatment(id);
    return treatment ? elementPerUnit(treatment, plan, element) : null;
  },
});

/** A treatment with its doses as matched. */
export const withMatched = (treatment: Treatment, arm: MatchedArm | undefined): Treatment => ({
  ...treatment,
  products: treatment.products.map((u) => {
    const factor = arm?.doses.find((d) => d.product.id === u.productId)?.factor ?? 1;
    return Math.abs(factor - 1) < 1e-9
      ? u
      : { ...u, amount: Number((u.amount * factor).toPrecision(6)), rateText: '' };
  }),
});

/** The doses of a plan's treatments made equal, a row each; the plan isn't changed. */
export const matchedArms = (plan: Plan, { basis, day, referenceId }: Match): MatchedArm[] =>
  matchDoses(
    plan.treatments.map((t) => armAt(plan, t, day)),
    basis,
    referenceId,
    aroundOf(plan),
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
    treatments: plan.treatments.map((t) =>
      withMatched(
        t,
        matched.find((m) => m.id === t.id),
      ),
    ),
  };
}
