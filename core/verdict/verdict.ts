import type { CostError, ExtraCost, TreatmentCost } from '../cost/treatmentCost';
import { costPerExtraResult, costPerResult, describeCostError, treatmentCost } from '../cost/treatmentCost';
import { type Money, formatMoney } from '../cost/money';
import type { Result } from '../model/result';
import type { Plan, Role, Treatment } from '../model/plan';
import { listNames } from '../quantity/format';
import type { Finding } from './finding';
import type { RankedTreatment } from './rank';
import { type NameOf, againstControl, headline, isSoFar, sayPair, untested } from './words';

/** One line of the verdict: where a treatment came and what its result cost. */
export interface VerdictLine {
  treatment: Treatment;
  role: Role;
  rank: RankedTreatment | null;
  /** mean of the primary trait per unit, adjusted for blocks */
  mean: number | null;
  /** why there is no figure: died, left out, not measured; null where there is one */
  absent: string | null;
  cost: Result<TreatmentCost, CostError>;
  /** money per gram (leaf, fruit) of result; null where that makes no sense */
  perResult: Money | null;
  perExtra: ExtraCost | null;
}

export interface Verdict {
  headline: string;
  lines: VerdictLine[];
  /** treatment with the best value, and the sentence that says why; treatment null when nobody earns it */
  bestValue: { treatmentId: string | null; text: string };
  cannotTell: string[];
}

/** Whether money per unit of this trait means something: more of it is what one buys the product for. */
const isYield = (finding: Finding) => finding.trait.direction === 'higher';

/**
 * Puts ranking and money together.
 * @param nameOf names, or codes while the trial is blind
 */
export function makeVerdict(plan: Plan, finding: Finding, nameOf: NameOf): Verdict {
  const { analysis } = finding;
  const control = plan.treatments.find((t) => t.id === analysis.control)!;
  const controlCost = treatmentCost(control, plan.products, plan.currency, plan.mixing.exchange);
  const lines = plan.treatments.map((treatment): VerdictLine => {
    const summary = analysis.summaries.find((t) => t.name === treatment.id);
    const cost = treatmentCost(treatment, plan.products, plan.currency, plan.mixing.exchange);
    const versus = analysis.versusControl.find((c) => c.a === treatment.id);
    const priced = cost.ok && isYield(finding);
    return {
      treatment,
      role: treatment.role,
      rank: finding.ranking.find((r) => r.name === treatment.id) ?? null,
      mean: summary?.estimate ?? null,
      absent: summary ? null : absenceOf(finding, treatment.id),
      cost,
      perResult: priced && summary ? costPerResult(cost.value.perUnit, summary.estimate) : null,
      perExtra:
        priced && versus && controlCost.ok
          ? costPerExtraResult(cost.value.perUnit, controlCost.value.perUnit, versus)
          : null,
    };
  });
  lines.sort((a, b) => order(finding, a) - order(finding, b));
  return {
    headline: headline(finding, nameOf),
    lines,
    bestValue: bestValue(finding, lines, nameOf),
    cannotTell: cannotTell(plan, finding, lines, nameOf),
  };
}

/** Why a treatment has no figure. @example 'died' */
function absenceOf({ leftOut }: Finding, treatmentId: string): string {
  const own = leftOut.filter((u) => u.treatmentId === treatmentId);
  if (own.length === 0) return 'no units';
  const whys = [...new Set(own.map((u) => u.why))];
  return listNames(whys.map((w) => ({ died: 'died', excluded: 'left out', notMeasured: 'not measured' })[w]));
}

function order(finding: Finding, line: VerdictLine): number {
  const i = finding.ranking.findIndex((r) => r.name === line.treatment.id);
  return i < 0 ? Infinity : i;
}

/** The cheapest extra gram among the treatments that clearly beat the control; the control when none did. */
function bestValue(finding: Finding, lines: readonly VerdictLine[], nameOf: NameOf): Verdict['bestValue'] {
  const control = nameOf(finding.analysis.control);
  const unit = finding.trait.unit || finding.trait.name.toLowerCase();
  if (finding.analysis.spread !== 'shown') {
    return {
      treatmentId: null,
      text: 'Without a spread to go by these figures can’t say what a product is worth.',
    };
  }
  if (!isYield(finding)) {
    return {
      treatmentId: null,
      text: `Money per ${unit} means nothing for a trait where more isn’t better.`,
    };
  }
  const better = new Set(againstControl(finding).better.map((c) => c.a));
  if (better.size === 0) {
    return {
      treatmentId: finding.analysis.control,
      text: `${control}: nothing was clearly better, so nothing earned its price.`,
    };
  }
  const candidates = lines.filter((l) => better.has(l.treatment.id));
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

/** The things this trial leaves open, one a line. */
function cannotTell(plan: Plan, finding: Finding, lines: readonly VerdictLine[], nameOf: NameOf): string[] {
  const out: string[] = [];
  const { trait, analysis } = finding;
  const what = trait.direction === 'band' ? ' of distance outside the band' : '';
  for (const p of finding.outcomes) {
    if (p.verdict !== 'tooClose' && p.verdict !== 'leaning') continue;
    // Against the control the sign is the contender's, as on every other screen.
    const contrast =
      p.a === analysis.control
        ? analysis.versusControl.find((c) => c.a === p.b)!
        : analysis.pairs.find((c) => c.a === p.a && c.b === p.b)!;
    const leaning = p.verdict === 'leaning' && p.ahead ? `, leaning to ${nameOf(p.ahead)}` : '';
    out.push(`Which is better, ${sayPair(contrast, finding, nameOf)}${what}${leaning}.`);
  }
  const why = untested[analysis.spread];
  if (why !== null) out.push(`Which is better: ${why.charAt(0).toLowerCase()}${why.slice(1)}`);
  if (isSoFar(finding)) out.push('How it ends: not every planned round is in.');
  if (finding.smallestDifference === null)
    out.push('Whether a difference is large enough to matter: none was set beforehand.');
  for (const l of lines) {
    if (!l.cost.ok) out.push(`What ${nameOf(l.treatment.id)} costs: ${describeCostError(l.cost.error)}`);
  }
  out.push(
    `Another crop, season or place: this was ${plan.crop || 'one crop'}, once. A repeat would tell whether it holds.`,
  );
  return out;
}
