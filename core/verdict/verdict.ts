import type { CostError, ExtraCost, TreatmentCost } from '../cost/treatmentCost';
import { costPerExtraResult, costPerResult, describeCostError, treatmentCost } from '../cost/treatmentCost';
import { type Money, formatMoney } from '../cost/money';
import { type GivenCost, givenCost } from '../cost/givenCost';
import type { AuditFinding } from '../fairness/audit';
import type { TrialState } from '../log/state';
import { type Result, ok } from '../model/result';
import { divisorOf, resultUnit } from '../plan/divisor';
import { givenPlan } from '../mixing/givenPlan';
import { planIndex } from '../plan/planIndex';
import type { Plan, Role, Treatment } from '../model/plan';
import { listNames } from '../quantity/format';
import { absenceOf } from './absence';
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
  /** products for one unit: by the log where it has batches, else as planned */
  cost: Result<TreatmentCost, CostError>;
  /** what the log says was given; null: nothing, the cost is the planned one */
  given: GivenCost | null;
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
  /** whether costs are of what was given, or of what was planned */
  costBasis: string;
}

/** Whether money per unit of this trait means something: more of it is what one buys the product for. */
const isYield = (finding: Finding) => finding.trait.direction === 'higher';

/** What a verdict takes in beside the plan and the finding. */
export interface VerdictContext {
  /** the log, for what was really given */
  state?: Pick<TrialState, 'plan' | 'byKind'>;
  /** what the fairness audit finds */
  audit?: readonly AuditFinding[];
}

/** Products for one unit: what the log says was given; without batches in it what was planned. */
function costOf(
  treatment: Treatment,
  plan: Plan,
  state: VerdictContext['state'],
): Pick<VerdictLine, 'cost' | 'given'> {
  const programme = state && givenPlan(state).treatments.find((t) => t.id === treatment.id);
  const planned = treatmentCost(programme ?? treatment, plan.products, plan.currency, plan.mixing.exchange);
  const given = state === undefined ? null : givenCost(state, treatment);
  if (given === null || !planned.ok) return { cost: planned, given: null };
  if (!given.ok) return { cost: given, given: null };
  return { cost: ok({ ...planned.value, perUnit: given.value.perUnit }), given: given.value };
}

/** Money for a unit as money for what its result is per: a plant, a square metre. */
function perDivisor(money: Money, treatment: Treatment, plan: Plan, { trait }: Finding): Money {
  const divisors = planIndex(plan)
    .unitsOf(treatment.id)
    .map((u) => divisorOf(plan, u, trait) ?? NaN);
  const mean = divisors.reduce((s, d) => s + d, 0) / divisors.length;
  return { ...money, minor: money.minor / mean };
}

/**
 * Puts ranking and money together.
 * @param nameOf names, or codes while the trial is blind
 */
export function makeVerdict(
  plan: Plan,
  finding: Finding,
  nameOf: NameOf,
  { state, audit = [] }: VerdictContext = {},
): Verdict {
  const { analysis } = finding;
  const control = plan.treatments.find((t) => t.id === analysis.control)!;
  const controlCost = costOf(control, plan, state).cost;
  const breaks = audit.filter((a) => a.severity === 'breaks');
  const lines = plan.treatments.map((treatment): VerdictLine => {
    const summary = analysis.summaries.find((t) => t.name === treatment.id);
    const { cost, given } = costOf(treatment, plan, state);
    const versus = analysis.versusControl.find((c) => c.a === treatment.id);
    const priced = cost.ok && isYield(finding);
    const per = (of: Treatment, money: Money) => perDivisor(money, of, plan, finding);
    return {
      treatment,
      role: treatment.role,
      rank: finding.ranking.find((r) => r.name === treatment.id) ?? null,
      mean: summary?.estimate ?? null,
      absent: summary ? null : absenceOf(finding, treatment.id),
      cost,
      given,
      perResult:
        priced && summary ? costPerResult(per(treatment, cost.value.perUnit), summary.estimate) : null,
      perExtra:
        priced && versus && controlCost.ok && !finding.peers
          ? costPerExtraResult(
              per(treatment, cost.value.perUnit),
              per(control, controlCost.value.perUnit),
              versus,
            )
          : null,
    };
  });
  lines.sort((a, b) => order(finding, a) - order(finding, b));
  return {
    headline: [unfair(breaks), headline(finding, nameOf)].filter(Boolean).join(' '),
    lines,
    bestValue: bestValue(finding, lines, nameOf),
    costBasis: costBasis(lines, nameOf),
    cannotTell: [
      ...breaks.map(
        (b) =>
          `Whether the product did it. ${b.title}: ${b.found}${b.accepted === null ? '' : ` Accepted: ${b.accepted}`}`,
      ),
      ...cannotTell(plan, finding, lines, nameOf),
    ],
  };
}

/** Whether costs are of what was given. @example 'Products as given, by the log: A 3 batches.' */
function costBasis(lines: readonly VerdictLine[], nameOf: NameOf): string {
  const dosed = lines.filter((l) => l.treatment.products.length > 0);
  if (dosed.length === 0) return '';
  const given = dosed.flatMap((l) => (l.given === null ? [] : [{ l, batches: l.given.batches }]));
  if (given.length === 0) return 'Products as planned; no batch is in the log.';
  const planned = dosed.filter((l) => l.given === null).map((l) => nameOf(l.treatment.id));
  const said = given.map(
    ({ l, batches }) => `${nameOf(l.treatment.id)} ${batches} ${batches === 1 ? 'batch' : 'batches'}`,
  );
  return `Products as given, by the log: ${listNames(said)}.${planned.length > 0 ? ` As planned: ${listNames(planned)}.` : ''}`;
}

/** What breaks the comparison, as the verdict's first sentence; empty where nothing does or it was accepted. */
function unfair(breaks: readonly AuditFinding[]): string {
  const open = breaks.filter((b) => b.accepted === null);
  if (open.length === 0) return '';
  return `Not a fair comparison: ${listNames(open.map((b) => b.title.charAt(0).toLowerCase() + b.title.slice(1)))}.`;
}

function order(finding: Finding, line: VerdictLine): number {
  const i = finding.ranking.findIndex((r) => r.name === line.treatment.id);
  return i < 0 ? Infinity : i;
}

/** The cheapest extra gram among the treatments that clearly beat the control; the control when none did. */
function bestValue(finding: Finding, lines: readonly VerdictLine[], nameOf: NameOf): Verdict['bestValue'] {
  const control = nameOf(finding.analysis.control);
  const unit = resultUnit(finding.trait) || finding.trait.name.toLowerCase();
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
  if (finding.peers)
    out.push('Whether any of them is better than nothing: equals were compared, without a control.');
  const why = untested[analysis.spread];
  if (why !== null) out.push(`Which is better: ${why.charAt(0).toLowerCase()}${why.slice(1)}`);
  if (isSoFar(finding))
    out.push(
      finding.basis.open.length > 0 || finding.basis.toCome > 0
        ? 'How it ends: not every planned round is in.'
        : 'How it ends: not every unit is measured.',
    );
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
