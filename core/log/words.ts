import type { Plan, Trait } from '../model/plan';
import { sayLetters } from '../plan/letters';
import { planIndex } from '../plan/planIndex';

/** How lines of the log call what they are about: by what people read, or by codes while the trial is blind. */
export interface LogWords {
  /** code on the unit's label; “the trial” for null */
  unit: (id: string | null) => string;
  trait: (id: string) => Trait | undefined;
  /** name of the round; empty for none */
  round: (id: string | null) => string;
  treatment: (id: string | null) => string;
  /** name of a product; the bottle's code under codes */
  product: (treatmentId: string | null, productId: string) => string;
  area: (id: string) => string;
  /** codes are closed: lines don't tell what is in a bottle */
  hides: boolean;
  /** which letter is whose, once the codes of a blind trial are open; empty otherwise */
  letters: string;
}

/**
 * Words for a plan as it is shown.
 * @param bottleOf what a product is called in a treatment while names are hidden; empty: not known
 * @param hides codes are closed
 * @example logWords(plan).unit('u1') // 'SUN-01'
 */
export function logWords(
  plan: Plan,
  bottleOf: (treatmentId: string, productId: string) => string = () => '',
  hides = false,
): LogWords {
  const of = planIndex(plan);
  return {
    unit: (id) => (id === null ? 'the trial' : (of.unit(id)?.code ?? '?')),
    trait: of.trait,
    round: (id) => (id === null ? '' : (of.round(id)?.name ?? '')),
    treatment: (id) => (id === null ? '' : (of.treatment(id)?.name ?? '?')),
    product: (treatmentId, productId) =>
      of.product(productId)?.name ?? (treatmentId === null ? '' : bottleOf(treatmentId, productId)),
    area: (id) => of.area(id)?.name ?? '?',
    hides,
    letters: hides || plan.blinding === 'open' ? '' : sayLetters(plan),
  };
}
