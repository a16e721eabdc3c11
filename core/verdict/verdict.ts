import type { CostError, ExtraCost, TreatmentCost } from '../cost/treatmentCost';
import { costPerExtraResult, costPerResult, describeCostError, treatmentCost } from '../cost/treatmentCost';
import type { Money } from '../cost/money';
import { type GivenCost, givenCost } from '../cost/givenCost';
import type { AuditFinding } from '../fairness/audit';
import type { Contrast } from '../analysis/contrast';
import type { TrialState } from '../log/state';
import { type Result, ok } from '../model/result';
import { givenPlan } from '../mixing/givenPlan';
import type { Plan, Role, Treatment } from '../model/plan';
import { listNames } from '../quantity/format';
import { absenceOf } from '../account/absence';
import { bestValue, isYield } from '../say/bestValue';
import type { Finding } from '../account/finding';
import { perDivisor } from '../account/perDivisor';
import type { RankedTreatment } from '../account/rank';
import { type NameOf, headline, isSoFar, sayPair, untested } from '../say/words';

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

/** A contrast as a difference in the trait's unit; null where it is none, as with shares of pairs. */
function inUnits(c: Contrast, { analysis }: Finding) {
  if (c.scale === 'difference') return c;
  if (c.scale !== 'ratio') return null;
  const base = analysis.summaries.find((s) => s.name === c.b)!.estimate;
  const at = (x: number | null) => (x === null ? null : base * (x - 1));
  return { estimate: base * (c.estimate - 1), low: at(c.low), high: at(c.high) };
}

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
    const gain = versus && inUnits(versus, finding);
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
        priced && gain && controlCost.ok && !finding.peers
          ? costPerExtraResult(
              per(treatment, cost.value.perUnit),
              per(control, controlCost.value.perUnit),
              gain,
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
  if (finding.smallestDifference === null && analysis.pairs[0]?.scale !== 'superiority')
    out.push('Whether a difference is large enough to matter: none was set beforehand.');
  for (const l of lines) {
    if (!l.cost.ok) out.push(`What ${nameOf(l.treatment.id)} costs: ${describeCostError(l.cost.error)}`);
  }
  out.push(
    `Another crop, season or place: this was ${plan.crop || 'one crop'}, once. A repeat would tell whether it holds.`,
  );
  return out;
}
