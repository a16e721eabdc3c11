import type { Plan } from '../model/plan';
import { moreIsBetter } from '../analysis/goodness';
import { planIndex } from '../plan/planIndex';
import { brownForsythe } from '../stats/brownForsythe';
import { formatFigure, formatP, listNames } from '../quantity/format';
import type { Finding } from '../account/finding';
import { heldOf, soleControl } from '../account/outcomes';
import { factOf, heldFacts } from './headline';
import type { Fact } from './statement';
import { readChange } from '../verdict/readChange';
import { sayInterval } from './sayContrast';
import type { Verdict } from '../verdict/verdict';

/** Something a contender earned, with the figures behind it. */
export interface Award {
  facts: readonly Fact[];
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
  const control = soleControl(finding);
  const controlRole = control === null ? null : (planIndex(plan).treatment(control)?.role ?? null);
  const names = (ids: readonly string[]) => listNames(ids.map(nameOf));
  const first = finding.ranking.filter((r) => r.rank === 1);
  // Nobody is best of all where the control has no figure; where another hasn't, it is best of those that have.
  const all = finding.absent.length === 0;
  if (
    first.length === 1 &&
    first[0]!.name !== control &&
    finding.lost.length === 0 &&
    beatsAll(finding, first[0]!.name)
  )
    out.push({
      id: 'bestOverall',
      title: 'Best overall',
      to: [first[0]!.name],
      facts: finding.outcomes.flatMap((o) => (o.ahead === first[0]!.name ? factOf(finding, o.a, o.b) : [])),
      text: `${nameOf(first[0]!.name)}: clearly ahead of every other${all ? '' : ' that has a figure'} in ${trait.name.toLowerCase()}.`,
    });
  const value = verdict.bestValue.treatmentId;
  if (value !== null && value !== control)
    out.push({
      id: 'bestValue',
      title: 'Best value',
      to: [value],
      text: verdict.bestValue.text,
      facts: verdict.bestValue.facts,
    });
  const even = evenest(finding);
  if (even)
    out.push({
      id: 'evenest',
      title: 'Evenest',
      to: [even.id],
      facts: [],
      text:
        `${nameOf(even.id)}: units differ by ${formatFigure(even.sd, trait.decimals + 1)} ${trait.unit}`.trimEnd() +
        `, the least of ${even.all ? 'all' : 'those with three or more'} (Brown–Forsythe over them p = ${formatP(even.p)}).`.replace(
          '= <',
          '<',
        ),
    });
  const held = heldOf(finding);
  const byControl = [...new Set(held.map((h) => h.control))];
  for (const id of byControl) {
    const own = held.filter((h) => h.control === id);
    const alike = own.filter((h) => h.outcome.verdict === 'alike');
    if (alike.length > 0)
      out.push({
        id: 'noBetter',
        title: `No better than ${nameOf(id)}`,
        to: alike.map((h) => h.id),
        facts: heldFacts(finding, alike),
        text: `${names(alike.map((h) => h.id))}: any difference is smaller than what matters (${alike.map((h) => sayInterval(h.contrast, finding)).join('; ')}).`,
      });
    const worse = own.filter((h) => h.outcome.verdict === 'better' && h.outcome.ahead === id);
    if (worse.length > 0)
      out.push({
        id: 'worse',
        title:
          controlRole === 'untreated' && id === control ? 'Worse than nothing' : `Worse than ${nameOf(id)}`,
        to: worse.map((h) => h.id),
        facts: heldFacts(finding, worse),
        text: `${names(worse.map((h) => h.id))}: clearly ${moreIsBetter(trait) ? 'below' : 'worse than'} ${nameOf(id)} (${worse.map((h) => sayInterval(h.contrast, finding)).join('; ')}).`,
      });
  }
  const fell = held.flatMap(({ id, contrast }) => {
    const expected = planIndex(plan).treatment(id)?.expectedPercent ?? null;
    const change = readChange(contrast, finding);
    if (expected === null || expected === 0 || change === null || change.unit !== '%') return [];
    // What was expected lies outside all that may be true.
    const short = expected > 0 ? change.high < expected : change.low > expected;
    return short ? [{ id, expected, change, short: Math.abs(expected - change.estimate) }] : [];
  });
  const most = fell.sort((a, b) => b.short - a.short)[0];
  if (most)
    out.push({
      id: 'disappointment',
      title: 'Biggest disappointment',
      to: [most.id],
      facts: [{ is: 'figure', a: most.id }],
      text: `${nameOf(most.id)}: ${most.expected} % were expected, ${formatFigure(most.change.estimate, 0)} % seen (${formatFigure(most.change.low, 0)} to ${formatFigure(most.change.high, 0)} %).`,
    });
  return out;
}

/** Whether one was told apart from every other, by a difference that matters where one was set. */
const beatsAll = ({ outcomes, analysis, smallestDifference }: Finding, id: string): boolean => {
  const own = outcomes.filter((o) => o.a === id || o.b === id);
  return (
    own.length === analysis.summaries.length - 1 &&
    own.every((o) => o.verdict === 'better' && o.ahead === id && (smallestDifference === null || o.matters))
  );
};

/** The contender whose units differ least, where spreads differ by more than chance. */
function evenest({
  analysis,
  units,
  trait,
}: Finding): { id: string; sd: number; p: number; all: boolean } | null {
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
  return least.sd === null
    ? null
    : { id: least.id, sd: least.sd, p, all: groups.length === analysis.summaries.length };
}
