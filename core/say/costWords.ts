import { type FullCost, breakEven, fullCost, priceFactor } from '../cost/fullCost';
import { describeCostError } from '../cost/treatmentCost';
import type { TrialState } from '../log/state';
import type { CostSettings } from '../model/judgement';
import type { Plan } from '../model/plan';
import { formatFigure, listNames } from '../quantity/format';
import type { Finding } from '../account/finding';
import { againstControl } from '../account/outcomes';
import { type ExtraOver, extraCosts } from '../verdict/extraCosts';
import { isYield } from './bestValue';
import { formatMoney, sayMoney } from '../quantity/money';
import { resultUnit } from '../plan/divisor';
import { sayLimit } from './limitWords';
import { divisorIn } from '../account/perDivisor';
import { decimalsOfFinding, sayControl } from './sayContrast';
import { type Verdict, inUnits } from '../verdict/verdict';

/** What each contender's units took. */
export type Costs = ReadonlyMap<string, FullCost>;

/**
 * What a unit of each contender took. One whose products are priced in another currency, without a rate, isn't in it:
 * sums of two currencies say nothing.
 */
export function costsOf(state: TrialState, verdict: Verdict, settings: CostSettings): Costs {
  const { plan } = state;
  const days = Math.max(0, ...plan.rounds.map((r) => r.day));
  return new Map(
    verdict.lines.flatMap(({ treatment, cost, given }) =>
      cost.ok && (cost.value.perUnit.currency === plan.currency || cost.value.perUnit.minor === 0)
        ? [
            [
              treatment.id as string,
              fullCost(
                state,
                treatment,
                { ...cost.value.perUnit, currency: plan.currency, byUnit: given?.byUnit ?? null },
                settings,
                days,
              ),
            ] as const,
          ]
        : [],
    ),
  );
}

/**
 * What the money says, in sentences: outlay that pays for itself, a limit that was set, and what price would turn the best
 * value. Nothing is said of a gain that wasn't shown.
 */
export function sayCosts(
  costs: Costs,
  settings: CostSettings,
  verdict: Verdict,
  finding: Finding,
  nameOf: (id: string) => string,
  plan: Plan,
): string[] {
  const out: string[] = [];
  const all = [...costs];
  for (const [a, dear] of all)
    for (const [b, cheap] of all) {
      const times = breakEven(
        { outlay: dear.outlay.minor, running: dear.running.minor },
        { outlay: cheap.outlay.minor, running: cheap.running.minor },
      );
      if (times !== null)
        out.push(
          `${nameOf(a)} has paid for what it costs more at the start than ${nameOf(b)} after ${times} ${times === 1 ? 'time' : 'times'}.`,
        );
    }
  out.push(...sayExtra(extraCosts(costs, verdict, finding, plan), finding, plan, nameOf));
  out.push(...sayLess(costs, finding, plan, nameOf));
  out.push(...sayLimit(costs, settings, plan, finding, nameOf));
  const turn = turnsAt(costs, verdict, finding, plan);
  if (turn)
    out.push(
      turn.factor >= 1
        ? `${nameOf(turn.best)} stays the best value until its products cost ${formatFigure(turn.factor, 1)} times as much; then ${nameOf(turn.next)} is.`
        : `With all that is counted ${nameOf(turn.next)} gives each extra ${finding.trait.unit || 'step'} for less than ${nameOf(turn.best)}.`,
    );
  const without = verdict.lines.filter((l) => !costs.has(l.treatment.id));
  const foreign = without.filter((l) => l.cost.ok).map((l) => nameOf(l.treatment.id));
  if (foreign.length > 0)
    out.push(`${listNames(foreign)}: not priced in this trial’s currency, so not in the table.`);
  for (const { treatment, cost } of without)
    if (!cost.ok) out.push(`${nameOf(treatment.id)} isn’t in the table: ${describeCostError(cost.error)}`);
  const unknown = all.filter(([, c]) => c.unknown.length > 0);
  for (const [id, c] of unknown)
    out.push(`${nameOf(id)}: ${listNames(c.unknown)} not known, so not in its sum.`);
  return out;
}

/** At how many times its price the best value passes to the next; null where fewer than two gains were shown. */
export function turnsAt(costs: Costs, verdict: Verdict, finding: Finding, plan: Plan) {
  const best = verdict.bestValue.treatmentId;
  const extras = extraCosts(costs, verdict, finding, plan);
  const own = extras.find((s) => s.id === best);
  const next = extras.filter((s) => s.id !== best).sort((a, b) => a.each - b.each)[0];
  if (best === null || !own || !next) return null;
  if (own.each > next.each) return { best, next: next.id, factor: 0 };
  const per = divisorIn(plan, finding, best);
  const products = costs.get(best)!.lines.find((l) => l.name === 'products')!.minor / per;
  const factor = priceFactor({ rest: own.each * own.gain - products, products, gain: own.gain }, next.each);
  return factor === null ? null : { best, next: next.id, factor };
}

/** What each extra gram took, with its limits; nothing where no gain was shown, or more isn't an amount. */
function sayExtra(extra: readonly ExtraOver[], finding: Finding, plan: Plan, nameOf: (id: string) => string) {
  if (extra.length === 0 || !isYield(finding)) return [];
  const money = (minor: number) => sayMoney({ minor, currency: plan.currency });
  const confidence = Math.round(100 * (1 - finding.analysis.alpha));
  const each = extra.map(
    (x) =>
      `${nameOf(x.id)} ${money(x.each)}${x.low === x.high ? '' : ` (${money(x.low)} to ${money(x.high)})`}`,
  );
  return [
    `Each ${resultUnit(finding.trait)} more than ${sayControl(finding, nameOf)} took, with its ${confidence} % interval: ${listNames(each)}.`,
  ];
}

/**
 * The other side of the plane: what was shown to give less, for less money (what is saved, what is lost) or for as much or
 * more. Nothing of what wasn't told apart.
 */
function sayLess(costs: Costs, finding: Finding, plan: Plan, nameOf: (id: string) => string): string[] {
  if (!isYield(finding) || finding.analysis.spread !== 'shown') return [];
  return againstControl(finding).worse.flatMap(({ id, control, contrast: c }) => {
    const [own, base] = [costs.get(id), costs.get(control)];
    const gain = inUnits(c, finding);
    if (!own || !base || gain?.low == null || gain.high === null) return [];
    const saved = base.perUnit.minor - own.perUnit.minor;
    const lost = sayLost({ ...gain, low: gain.low, high: gain.high }, finding);
    if (saved <= 0)
      return [
        `${nameOf(id)} gives less than ${nameOf(control)} for ${saved === 0 ? 'the same' : 'more'} money: ${lost} less.`,
      ];
    const money = formatMoney({ minor: saved, currency: plan.currency });
    return [
      `${nameOf(id)} gives less than ${nameOf(control)} for less money: ${money} saved a ${plan.unitNoun}, ${lost} lost.`,
    ];
  });
}

/** What is lost, with its limits, without a sign. @example '5.0 g (2.1 to 7.9)' */
function sayLost(gain: { estimate: number; low: number; high: number }, finding: Finding): string {
  const show = (x: number) => formatFigure(Math.max(0, -x), decimalsOfFinding(finding));
  return `${show(gain.estimate)} ${resultUnit(finding.trait)} (${show(gain.high)} to ${show(gain.low)})`;
}
