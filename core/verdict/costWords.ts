import { type FullCost, breakEven, fullCost, priceFactor } from '../cost/fullCost';
import type { TrialState } from '../log/state';
import type { CostSettings } from '../model/judgement';
import type { Plan } from '../model/plan';
import { formatFigure, listNames } from '../quantity/format';
import type { Finding } from './finding';
import { sayLimit } from './limitWords';
import { divisorIn } from './perDivisor';
import type { Verdict } from './verdict';

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
  out.push(...sayLimit(costs, settings, plan, finding, nameOf));
  const turn = turnsAt(costs, verdict, finding, plan);
  if (turn)
    out.push(
      turn.factor >= 1
        ? `${nameOf(turn.best)} stays the best value until its products cost ${formatFigure(turn.factor, 1)} times as much; then ${nameOf(turn.next)} is.`
        : `With all that is counted ${nameOf(turn.next)} gives each extra ${finding.trait.unit || 'step'} for less than ${nameOf(turn.best)}.`,
    );
  const without = verdict.lines.filter((l) => !costs.has(l.treatment.id)).map((l) => nameOf(l.treatment.id));
  if (without.length > 0)
    out.push(`${listNames(without)}: not priced in this trial’s currency, so not in the table.`);
  const unknown = all.filter(([, c]) => c.unknown.length > 0);
  for (const [id, c] of unknown)
    out.push(`${nameOf(id)}: ${listNames(c.unknown)} not known, so not in its sum.`);
  return out;
}

/** At how many times its price the best value passes to the next; null where fewer than two gains were shown. */
function turnsAt(costs: Costs, verdict: Verdict, finding: Finding, plan: Plan) {
  const { analysis } = finding;
  const best = verdict.bestValue.treatmentId;
  const control = costs.get(analysis.control);
  if (best === null || best === analysis.control || !control) return null;
  const per = (id: string) => divisorIn(plan, finding, id);
  const base = control.perUnit.minor / per(analysis.control);
  const shown = verdict.lines.flatMap((l) => {
    const c = costs.get(l.treatment.id);
    const gain = analysis.versusControl.find((v) => v.a === l.treatment.id);
    if (!c || !gain || l.perExtra?.worst == null || gain.scale !== 'difference') return [];
    return [{ id: l.treatment.id as string, c, gain: gain.estimate }];
  });
  const own = shown.find((s) => s.id === best);
  const others = shown
    .filter((s) => s.id !== best)
    .map((s) => ({ id: s.id, each: (s.c.perUnit.minor / per(s.id) - base) / s.gain }))
    .sort((a, b) => a.each - b.each);
  if (!own || others.length === 0) return null;
  const each = (own.c.perUnit.minor / per(best) - base) / own.gain;
  if (each > others[0]!.each) return { best, next: others[0]!.id, factor: 0 };
  const products = own.c.lines.find((l) => l.name === 'products')!.minor / per(best);
  const rest = own.c.perUnit.minor / per(best) - products - base;
  const factor = priceFactor({ rest, products, gain: own.gain }, others[0]!.each);
  return factor === null ? null : { best, next: others[0]!.id, factor };
}
