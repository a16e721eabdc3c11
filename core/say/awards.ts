import type { Plan } from '../model/plan';
import { controlOf } from '../plan/control';
import { planIndex } from '../plan/planIndex';
import { brownForsythe } from '../stats/brownForsythe';
import { formatFigure, formatP, listNames } from '../quantity/format';
import type { Finding } from '../account/finding';
import { outcomeOf } from '../account/outcomes';
import { readChange } from '../verdict/readChange';
import { sayInterval } from './sayContrast';
import type { Verdict } from '../verdict/verdict';

/** Something a contender earned, with the figures behind it. */
export interface Award {
  id: 'bestOverall' | 'bestValue' | 'evenest' | 'noBetter' | 'worse' | 'disappointment';
  title: string;
  /** contenders that earned it */
  to: string[];
  text: string;
}

/**
 * Awards by rule, each only where the evidence carries it: none for a lead that may be chance, none from traits that
 * only describe.
 */
export function awards(
  plan: Plan,
  finding: Finding,
  verdict: Verdict,
  nameOf: (id: string) => string,
): Award[] {
  const { analysis, trait } = finding;
  if (analysis.spread !== 'shown') return [];
  const out: Award[] = [];
  const control = controlOf(plan);
  const names = (ids: readonly string[]) => listNames(ids.map(nameOf));
  const first = finding.ranking.filter((r) => r.rank === 1);
  if (first.length === 1 && first[0]!.name !== control?.id && first[0]!.notSeparatedFrom.length === 0)
    out.push({
      id: 'bestOverall',
      title: 'Best overall',
      to: [first[0]!.name],
      text: `${nameOf(first[0]!.name)}: clearly ahead of every other in ${trait.name.toLowerCase()}.`,
    });
  const value = verdict.bestValue.treatmentId;
  if (value !== null && value !== control?.id)
    out.push({ id: 'bestValue', title: 'Best value', to: [value], text: verdict.bestValue.text });
  const even = evenest(finding);
  if (even)
    out.push({
      id: 'evenest',
      title: 'Evenest',
      to: [even.id],
      text:
        `${nameOf(even.id)}: units differ by ${formatFigure(even.sd, trait.decimals + 1)} ${trait.unit}`.trimEnd() +
        `, the least of all (Brown–Forsythe over all p = ${formatP(even.p)}).`.replace('= <', '<'),
    });
  if (!control || finding.peers) return out;
  const against = analysis.versusControl.filter((c) => c.b === control.id);
  const alike = against.filter((c) => outcomeOf(finding, c.a, control.id)?.verdict === 'alike');
  if (alike.length > 0)
    out.push({
      id: 'noBetter',
      title: `No better than ${nameOf(control.id)}`,
      to: alike.map((c) => c.a),
      text: `${names(alike.map((c) => c.a))}: any difference is smaller than what matters (${alike.map((c) => sayInterval(c, finding)).join('; ')}).`,
    });
  const worse = against.filter((c) => {
    const o = outcomeOf(finding, c.a, control.id);
    return o?.verdict === 'better' && o.ahead === control.id;
  });
  if (worse.length > 0)
    out.push({
      id: 'worse',
      title: control.role === 'untreated' ? 'Worse than nothing' : `Worse than ${nameOf(control.id)}`,
      to: worse.map((c) => c.a),
      text: `${names(worse.map((c) => c.a))}: clearly below ${nameOf(control.id)} (${worse.map((c) => sayInterval(c, finding)).join('; ')}).`,
    });
  const fell = against.flatMap((c) => {
    const expected = planIndex(plan).treatment(c.a)?.expectedPercent ?? null;
    const change = readChange(c, finding);
    if (expected === null || expected === 0 || change === null || change.unit !== '%') return [];
    // What was expected lies outside all that may be true.
    const short = expected > 0 ? change.high < expected : change.low > expected;
    return short ? [{ id: c.a, expected, change, short: Math.abs(expected - change.estimate) }] : [];
  });
  const most = fell.sort((a, b) => b.short - a.short)[0];
  if (most)
    out.push({
      id: 'disappointment',
      title: 'Biggest disappointment',
      to: [most.id],
      text: `${nameOf(most.id)}: ${most.expected} % were expected, ${formatFigure(most.change.estimate, 0)} % seen (${formatFigure(most.change.low, 0)} to ${formatFigure(most.change.high, 0)} %).`,
    });
  return out;
}

/** The contender whose units differ least, where spreads differ by more than chance. */
function evenest({ analysis, units, trait }: Finding): { id: string; sd: number; p: number } | null {
  if (trait.direction === 'band') return null;
  const groups = analysis.summaries
    .map((s) => ({
      id: s.name,
      sd: s.sd,
      values: units.filter((u) => u.treatmentId === s.name).map((u) => u.value),
    }))
    .filter((g) => g.values.length > 2);
  if (groups.length < 2 || analysis.method !== 'linear') return null;
  const { p } = brownForsythe(groups.map((g) => g.values));
  if (p === null || p > analysis.alpha) return null;
  const least = groups.reduce((a, b) => ((b.sd ?? Infinity) < (a.sd ?? Infinity) ? b : a));
  return least.sd === null ? null : { id: least.id, sd: least.sd, p };
}
