import { formatMoney } from '../cost/money';
import { kindOf } from '../model/traitKinds';
import { resultUnit } from '../plan/divisor';
import { listNames } from '../quantity/format';
import type { Finding } from '../account/finding';
import type { Verdict, VerdictLine } from '../verdict/verdict';
import { type NameOf, againstControl } from './words';

/** Whether money per unit of this trait means something: it is an amount, and more of it is what one buys the product for. */
export const isYield = ({ trait }: Finding): boolean =>
  trait.direction === 'higher' && ['continuous', 'count'].includes(kindOf(trait).observes);

/** The cheapest extra gram among the treatments that clearly beat the control; the control when none did. */
export function bestValue(
  finding: Finding,
  lines: readonly VerdictLine[],
  nameOf: NameOf,
): Verdict['bestValue'] {
  const control = nameOf(finding.analysis.control);
  const unit = resultUnit(finding.trait) || finding.trait.name.toLowerCase();
  if (finding.analysis.spread !== 'shown') {
    return {
      treatmentId: null,
      text: 'Without a spread to go by these figures can’t say what a product is worth.',
    };
  }
  if (kindOf(finding.trait).observes !== 'event' && finding.trait.direction !== 'higher') {
    return {
      treatmentId: null,
      text: `Money per ${unit} means nothing for a trait where more isn’t better.`,
    };
  }
  if (finding.peers) {
    return {
      treatmentId: null,
      text: 'There is no control, so what one more is worth can’t be said; money per result stands in the table.',
    };
  }
  const better = new Set(againstControl(finding).better.map((c) => c.a));
  // Worth nothing is a finding of its own: it takes intervals without room for a difference that matters.
  const open = finding.outcomes.some(
    (o) =>
      (o.a === finding.analysis.control || o.b === finding.analysis.control) &&
      (o.verdict === 'tooClose' || o.verdict === 'leaning'),
  );
  if (better.size === 0 && open) {
    return {
      treatmentId: null,
      text: `Can’t be told: nothing was clearly better than ${control}, and too little was seen to say that nothing earns its price.`,
    };
  }
  if (better.size === 0) {
    return {
      treatmentId: finding.analysis.control,
      text: `${control}: nothing was clearly better, so nothing earned its price.`,
    };
  }
  const candidates = lines.filter((l) => better.has(l.treatment.id));
  if (!isYield(finding)) return cheapest(finding, candidates, nameOf);
  const unpriced = candidates.filter((l) => !l.perExtra).map((l) => nameOf(l.treatment.id));
  const priced = candidates.filter((l) => l.perExtra);
  if (unpriced.length > 0) {
    return {
      treatmentId: null,
      text: `Open until ${listNames(unpriced)} can be priced in the same currency.`,
    };
  }
  if (new Set(priced.map((l) => l.perExtra!.perExtra.currency)).size > 1) {
    return { treatmentId: null, text: 'Open: the products are priced in different currencies.' };
  }
  const best = priced.reduce((a, b) => (b.perExtra!.perExtra.minor < a.perExtra!.perExtra.minor ? b : a));
  const { perExtra, best: low, worst: high } = best.perExtra!;
  const range = low && high ? ` (${formatMoney(low)} to ${formatMoney(high)})` : '';
  return {
    treatmentId: best.treatment.id,
    text: `${nameOf(best.treatment.id)}: ${formatMoney(perExtra)}${range} for each ${unit} more than ${control}.`,
  };
}

/** Of those that beat the control the one that costs least: what a step of a score is worth nobody can say. */
function cheapest(finding: Finding, better: readonly VerdictLine[], nameOf: NameOf): Verdict['bestValue'] {
  const priced = better.flatMap((l) => (l.cost.ok ? [{ id: l.treatment.id, ...l.cost.value }] : []));
  const unpriced = better.filter((l) => !l.cost.ok).map((l) => nameOf(l.treatment.id));
  if (unpriced.length > 0 || new Set(priced.map((p) => p.perUnit.currency)).size > 1) {
    return {
      treatmentId: null,
      text: `Open until ${listNames(better.map((l) => nameOf(l.treatment.id)))} can be priced in the same currency.`,
    };
  }
  const least = Math.min(...priced.map((p) => p.perUnit.minor));
  const best = priced.filter((p) => p.perUnit.minor === least);
  const of = better.length === 1 ? 'it alone beat' : 'the cheapest of those that beat';
  return {
    treatmentId: best.length === 1 ? best[0]!.id : null,
    text: `${listNames(best.map((p) => nameOf(p.id)))}: ${of} ${nameOf(finding.analysis.control)}, ${formatMoney(best[0]!.perUnit)} a unit.`,
  };
}
