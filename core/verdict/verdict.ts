import { type ExtraCost, costPerExtraResult, costPerResult } from '../cost/treatmentCost';
import type { Money } from '../quantity/money';
import type { Contrast } from '../analysis/contrast';
import { absenceOf } from '../account/absence';
import type { Finding } from '../account/finding';
import { heldWith } from '../account/outcomes';
import { type Paid, type PaidLine, paidOf } from '../account/paid';
import { perDivisor } from '../account/perDivisor';
import type { RankedTreatment } from '../account/rank';
import type { AuditFinding } from '../fairness/audit';
import type { TrialState } from '../log/state';
import type { Plan, Role, Treatment } from '../model/plan';
import { listNames } from '../quantity/format';
import { type BestValue, bestValue, isYield } from '../say/bestValue';
import { cannotTell } from '../say/cannotTell';
import { costBasis } from '../say/costBasis';
import { type Statement, statement } from '../say/statement';
import { headline } from '../say/words';
import type { NameOf } from '../model/nameOf';

/** One line of the verdict: where a treatment came and what its result cost. */
export interface VerdictLine extends PaidLine {
  role: Role;
  rank: RankedTreatment | null;
  /** mean of the primary trait per unit, adjusted for blocks */
  mean: number | null;
  /** why there is no figure: died, left out, not measured; null where there is one */
  absent: string | null;
  /** what it is held against, where both have figures */
  against: string | null;
  /** money per gram (leaf, fruit) of result; null where that makes no sense */
  perResult: Money | null;
  /** money per gram more than what it is held against gave */
  perExtra: ExtraCost | null;
}

export interface Verdict {
  headline: Statement;
  lines: VerdictLine[];
  bestValue: BestValue;
  cannotTell: Statement[];
  /** whether costs are of what was given, or of what was planned; null where nothing is given */
  costBasis: Statement | null;
}

/** A contrast as a difference in the trait's unit; null where it is none, as with shares of pairs. */
export function inUnits(c: Contrast, { analysis }: Pick<Finding, 'analysis'>) {
  if (c.scale === 'difference') return c;
  if (c.units) return c.units;
  if (c.scale !== 'ratio') return null;
  const base = analysis.summaries.find((s) => s.name === c.b)!.estimate;
  const at = (x: number | null) => (x === null ? null : base * (x - 1));
  return { estimate: base * (c.estimate - 1), low: at(c.low), high: at(c.high) };
}

/** What a verdict takes in beside the plan and the finding. */
interface VerdictContext {
  /** the log, for what was really given; left out: the plan alone */
  state?: Pick<TrialState, 'plan' | 'byKind'>;
  /** what the fairness audit finds */
  audit?: readonly AuditFinding[];
}

/**
 * Puts ranking and money together.
 * @param nameOf names, or codes while the trial is blind
 */
export function makeVerdict(
  plan: Plan,
  finding: Finding,
  nameOf: NameOf,
  { state = { plan, byKind: new Map() }, audit = [] }: VerdictContext = {},
): Verdict {
  const paid = paidOf(state);
  const breaks = audit.filter((a) => a.severity === 'breaks');
  const lines = plan.treatments.map((treatment) => lineOf(plan, finding, treatment, paid));
  lines.sort((a, b) => order(finding, a) - order(finding, b));
  const unfair = notFair(breaks);
  const said = headline(finding, nameOf);
  return {
    headline: { ...said, text: [unfair, said.text].filter(Boolean).join(' ') },
    lines,
    bestValue: bestValue(finding, lines, nameOf, plan.unitNoun),
    costBasis: costBasis(paid, nameOf),
    cannotTell: [
      ...breaks.map((b) =>
        statement(
          'cannotTell',
          `Whether the product did it. ${b.title}: ${b.found}${b.accepted === null ? '' : ` Accepted: ${b.accepted}`}`,
        ),
      ),
      ...cannotTell(plan, finding, lines, nameOf),
    ],
  };
}

function lineOf(plan: Plan, finding: Finding, treatment: Treatment, paid: Paid): VerdictLine {
  const own = paid.lines.get(treatment.id)!;
  const { cost } = own;
  const summary = finding.analysis.summaries.find((t) => t.name === treatment.id);
  const held = heldWith(finding, treatment.id);
  const control = held && paid.lines.get(held.control);
  const gain = held && inUnits(held.contrast, finding);
  const priced = cost.ok && isYield(finding);
  const per = (of: Treatment, money: Money) => perDivisor(money, of, plan, finding);
  return {
    ...own,
    role: treatment.role,
    rank: finding.ranking.find((r) => r.name === treatment.id) ?? null,
    mean: summary?.estimate ?? null,
    absent: absenceOf(finding, treatment.id),
    against: held?.control ?? null,
    perResult: priced && summary ? costPerResult(per(treatment, cost.value.perUnit), summary.estimate) : null,
    perExtra:
      priced && gain && control?.cost.ok
        ? costPerExtraResult(
            per(treatment, cost.value.perUnit),
            per(control.treatment, control.cost.value.perUnit),
            gain,
          )
        : null,
  };
}

/** What breaks the comparison, as the verdict's first sentence; empty where nothing does or it was accepted. */
function notFair(breaks: readonly AuditFinding[]): string {
  const open = breaks.filter((b) => b.accepted === null);
  if (open.length === 0) return '';
  return `Not a fair comparison: ${listNames(open.map((b) => b.title.charAt(0).toLowerCase() + b.title.slice(1)))}.`;
}

function order(finding: Finding, line: VerdictLine): number {
  const i = finding.ranking.findIndex((r) => r.name === line.treatment.id);
  return i < 0 ? Infinity : i;
}
