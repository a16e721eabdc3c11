import { type Money, inCurrency } from '../quantity/money';
import type { ElementSymbol } from '../model/element';
import type { PackId, TreatmentId } from '../model/ids';
import type { ExchangeRate, SourceWater } from '../model/mixingSetUp';
import { amountOf } from './density';
import { labelRange } from './resolveRate';
import { type DosePerL, type Solution, solutionOf } from './solution';
import { meqAt } from './strength';

/** What is made equal between treatments. */
export type MatchBasis =
  | { kind: 'asIs' }
  | { kind: 'label'; end: 'low' | 'middle' | 'high' }
  | { kind: 'element'; element: ElementSymbol }
  | { kind: 'strength' }
  | { kind: 'money' };

/** A treatment's doses in a litre. */
export interface Arm {
  id: TreatmentId;
  doses: (DosePerL & { packId: PackId | null })[];
}

/** How a dose stands against its label's range; null without a label rate that can be worked out. */
type LabelStand = { times: number; stand: 'below' | 'within' | 'above' } | null;

interface MatchedDose extends DosePerL {
  /** times the dose it had */
  factor: number;
  label: LabelStand;
}

export type MatchProblem = 'noElement' | 'noStrength' | 'noPrice' | 'noLabel';

export interface MatchedArm {
  id: TreatmentId;
  doses: MatchedDose[];
  solution: Solution;
  /** money for the products of a litre; null where one has no price */
  costPerL: Money | null;
  /** why it couldn't be made equal; its doses are then as they were */
  problem: MatchProblem | null;
}

export interface Around {
  water: SourceWater | null;
  currency: string;
  exchange: readonly ExchangeRate[];
  /**
   * g of an element that one unit of a treatment gets over the trial, at its doses now; null when unknown. Left
   * out: units get equal volumes, and a litre is compared with a litre
   */
  unitGets?: (id: TreatmentId, element: ElementSymbol) => number | null;
}

/** Money for the products in a litre; null where a pack, a density or a rate is missing. */
export function costPerLitre(arm: Pick<Arm, 'doses'>, { currency, exchange }: Around): Money | null {
  let minor = 0;
  for (const d of arm.doses) {
    const pack = d.product.packs.find((p) => p.id === d.packId) ?? d.product.packs[0];
    const inPack = pack && amountOf(d.product, d.amount, d.unit, pack.unit);
    const price = pack && inCurrency({ minor: pack.priceMinor, currency: pack.currency }, currency, exchange);
    if (!inPack?.ok || !price) return null;
    minor += (price.minor * inPack.value) / pack!.size;
  }
  return { minor, currency };
}

/** A dose against the label's range. @returns times the nearer end of the range, 1 within it */
export function againstLabel(d: DosePerL): LabelStand {
  const range = labelRange(d.product);
  if (!range || range.per !== 'L') return null;
  const amount = amountOf(d.product, d.amount, d.unit, range.unit);
  if (!amount.ok) return null;
  // A hair off the end of the range is the end of the range.
  if (amount.value < range.low * (1 - 1e-6)) return { times: amount.value / range.low, stand: 'below' };
  if (amount.value > range.high * (1 + 1e-6)) return { times: amount.value / range.high, stand: 'above' };
  return { times: 1, stand: 'within' };
}

/** Charges (cations, as a balanced solution has them) that an arm's products bring, meq/L. */
const meqOf = (arm: Pick<Arm, 'doses'>): number => {
  const s = solutionOf(arm.doses, null);
  return s.unknown.length > 0 ? NaN : meqAt(s.strength.ec);
};

/** What the basis compares, in products alone (the water is the same for all); NaN where unknown. */
function amountFor(arm: Arm, basis: MatchBasis, around: Around): number {
  switch (basis.kind) {
    case 'element': {
      // Twice the water is twice the nutrient: what a unit gets is made equal, not what is in a litre.
      if (around.unitGets) return around.unitGets(arm.id, basis.element) ?? NaN;
      const s = solutionOf(arm.doses, null);
      return s.unknown.length > 0 ? NaN : s.mgPerL[basis.element];
    }
    case 'strength':
      return meqOf(arm);
    case 'money':
      return costPerLitre(arm, around)?.minor ?? NaN;
    default:
      return NaN;
  }
}

const problems = { element: 'noElement', strength: 'noStrength', money: 'noPrice' } as const;

function toLabel(
  arm: Arm,
  end: 'low' | 'middle' | 'high',
): { factors: number[]; problem: MatchProblem | null } {
  let problem: MatchProblem | null = null;
  const factors = arm.doses.map((d) => {
    const range = labelRange(d.product);
    const now = range?.per === 'L' ? amountOf(d.product, d.amount, d.unit, range.unit) : null;
    if (!range || !now?.ok || now.value <= 0) {
      problem = 'noLabel';
      return 1;
    }
    const wanted = end === 'low' ? range.low : end === 'high' ? range.high : (range.low + range.high) / 2;
    return wanted / now.value;
  });
  return { factors, problem };
}

/**
 * Doses of all treatments made equal on a basis. A treatment's products keep their proportion to each other;
 * only by label is each product set on its own. The reference keeps its doses and sets the mark.
 *
 * @param arms doses per litre; those without products (controls) stay as they are
 * @param referenceId the treatment the others are matched to
 * @example matchDoses(arms, { kind: 'element', element: 'N' }, reference, around) // all with its mg/L of N
 */
export function matchDoses(
  arms: readonly Arm[],
  basis: MatchBasis,
  referenceId: TreatmentId | null,
  around: Around,
): MatchedArm[] {
  const reference =
    arms.find((a) => a.id === referenceId && a.doses.length > 0) ?? arms.find((a) => a.doses.length > 0);
  const mark = reference ? amountFor(reference, basis, around) : NaN;
  return arms.map((arm) => {
    let factors = arm.doses.map(() => 1);
    let problem: MatchProblem | null = null;
    if (arm.doses.length > 0 && basis.kind === 'label') {
      ({ factors, problem } = toLabel(arm, basis.end));
    } else if (arm.doses.length > 0 && basis.kind !== 'asIs' && basis.kind !== 'label') {
      const factor = mark / amountFor(arm, basis, around);
      if (Number.isFinite(factor) && factor > 0) factors = factors.map(() => factor);
      else problem = problems[basis.kind];
    }
    const doses = arm.doses.map((d, i) => {
      const dose = { ...d, amount: d.amount * factors[i]! };
      return { ...dose, factor: factors[i]!, label: againstLabel(dose) };
    });
    return {
      id: arm.id,
      doses,
      solution: solutionOf(doses, around.water),
      costPerL: costPerLitre({ doses }, around),
      problem,
    };
  });
}
