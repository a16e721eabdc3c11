import { formatMoney } from '../quantity/money';
import { type LimitSeen, againstLimit, unitsAgainstLimit } from '../cost/limit';
import type { CostSettings, LimitFor } from '../model/judgement';
import type { Plan } from '../model/plan';
import { resultUnit } from '../plan/divisor';
import { listNames } from '../quantity/format';
import { isYield } from './bestValue';
import type { Costs } from './costWords';
import type { Finding } from '../account/finding';
import { heldWith } from '../account/outcomes';
import { sayControl } from './sayContrast';
import { divisorIn } from '../account/perDivisor';

/** A contender's cost held against the limit, with where its uncertainty comes from. */
interface Held extends LimitSeen {
  id: string;
  /** what differed between its units; empty where the cost has no spread, or the interval is the finding's */
  differs: readonly string[];
}

/** Cost over an amount with its interval; nothing where the amount isn't clearly above none. */
function costOver(minor: number, amount: { estimate: number; low: number | null; high: number | null }) {
  if (!(amount.estimate > 0) || amount.low === null || amount.high === null || amount.low <= 0) return null;
  const ends = [minor / amount.high, minor / amount.low];
  return { estimate: minor / amount.estimate, low: Math.min(...ends), high: Math.max(...ends) };
}

/** Every contender's cost against the limit; what can't be held against it is named apart, with the reason. */
function heldAgainst(costs: Costs, plan: Plan, finding: Finding, limit: number, what: LimitFor) {
  const { analysis } = finding;
  const held: Held[] = [];
  const [notShown, noFigure]: [string[], string[]] = [[], []];
  const share = (id: string) => costs.get(id)!.perUnit.minor / divisorIn(plan, finding, id);
  for (const [id, cost] of costs) {
    if (what === 'unit') {
      held.push({ id, ...unitsAgainstLimit(cost.each, limit, 1 - analysis.alpha), differs: cost.differs });
      continue;
    }
    const against = heldWith(finding, id);
    if (what === 'extra' && !against) continue;
    const gain = against?.contrast;
    const control = against && costs.get(against.control);
    const amount =
      what === 'result'
        ? analysis.summaries.find((s) => s.name === id)
        : gain?.scale === 'difference'
          ? gain
          : undefined;
    const minor = what === 'result' ? share(id) : control ? share(id) - share(against.control) : NaN;
    const over = amount && Number.isFinite(minor) ? costOver(minor, amount) : null;
    if (over) held.push({ id, ...againstLimit(over.estimate, over, limit), differs: [] });
    else (what === 'extra' && amount ? notShown : noFigure).push(id);
  }
  return { held, notShown, noFigure };
}

/**
 * Whether a limit that was set beforehand was kept, contender by contender, and how sure that is: a whole interval on
 * one side of it, or the limit within it. Costs without a spread are said to have none.
 *
 * @example sayLimit(costs, settings, plan, finding, nameOf) // ['Under the limit of €0.30 a tray: A €0.28 (0.27 to 0.29) …']
 */
export function sayLimit(
  costs: Costs,
  settings: Pick<CostSettings, 'limitMinor' | 'limitFor'>,
  plan: Plan,
  finding: Finding,
  nameOf: (id: string) => string,
): string[] {
  const { limitMinor: limit, limitFor: what = 'unit' } = settings;
  if (limit === null || costs.size === 0) return [];
  if (what !== 'unit' && !isYield(finding))
    return [
      `A limit for each ${resultUnit(finding.trait) || 'step'} of ${finding.trait.name} means nothing: it isn’t an amount of which more is better.`,
    ];
  const { held, notShown, noFigure } = heldAgainst(costs, plan, finding, limit, what);
  const money = (minor: number) => formatMoney({ minor, currency: plan.currency });
  const unit = resultUnit(finding.trait);
  const per = {
    unit: `a ${plan.unitNoun}`,
    result: `for each ${unit}`,
    extra: `for each ${unit} more than ${sayControl(finding, nameOf)}`,
  }[what];
  const figure = (h: Held) =>
    `${nameOf(h.id)} ${money(h.estimate)}${h.low === null || h.high === null || h.low === h.high ? '' : ` (${money(h.low)} to ${money(h.high)})`}`;
  const of = (seen: LimitSeen['seen'], spread: boolean) =>
    held.filter((h) => h.seen === seen && (h.low !== null) === spread);
  const confidence = Math.round(100 * (1 - finding.analysis.alpha));
  const line = (list: readonly Held[], text: string, sure: string) =>
    list.length === 0 ? [] : [`${text} of ${money(limit)} ${per}${sure}: ${listNames(list.map(figure))}.`];
  const spreadOf = listNames([...new Set(held.flatMap((h) => h.differs))]);
  return [
    ...line(of('kept', true), 'Under the limit', ` with the whole ${confidence} % interval`),
    ...line(of('passed', true), 'Over the limit', ` with the whole ${confidence} % interval`),
    ...line(
      of('open', true),
      'Can’t be told against the limit',
      `, which lies within the ${confidence} % interval`,
    ),
    ...line(of('kept', false), 'Under the limit', ', as one sum for all, without a spread'),
    ...line(of('passed', false), 'Over the limit', ', as one sum for all, without a spread'),
    ...(spreadOf === ''
      ? []
      : [
          `The interval is of ${spreadOf} as it differed from ${plan.unitNoun} to ${plan.unitNoun}; prices are taken as they stand.`,
        ]),
    ...(what !== 'unit' && held.length > 0
      ? [
          `The interval is that of the ${what === 'extra' ? 'gain' : 'result'}; what was spent is taken as it stands.`,
        ]
      : []),
    ...(notShown.length === 0
      ? []
      : [
          `${listNames(notShown.map(nameOf))}: no gain was shown, so no limit for each ${unit} more can be said to be kept.`,
        ]),
    ...(noFigure.length === 0
      ? []
      : [`${listNames(noFigure.map(nameOf))}: no figure to hold against the limit.`]),
  ];
}
