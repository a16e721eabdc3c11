import type { Spread } from '../analysis/analysis';
import { countWord, formatFigure, listNames, sentenceCase } from '../quantity/format';
import type { AsGoodVerdict } from '../account/asGood';
import type { Finding } from '../account/finding';
import type { NameOf } from './sayContrast';
import { againstControl, inseparable, isSoFar, leaders, outcomeOf } from '../account/outcomes';

/** Why nothing was tested, as a headline; null where something was. */
export const untested: Record<Spread, string | null> = {
  shown: null,
  oneEach: 'One unit each: numbers, no winner.',
  noFreedom: 'No spread left to go by: numbers, no winner.',
  zero: 'No spread was seen: numbers, no winner.',
  tooFew: 'Too few units for this test: numbers, no winner.',
};

/** Words a headline may begin with that aren't names. */
const plainOpenings =
  /^(Whether|One|Two|Three|Four|Five|Six|Seven|Eight|Nine|Ten|Only|All|Neither|None|Too|No) /;

/** A headline that later rounds may still change. @example soFar('Only A beat Water.') // 'So far: only A beat Water.' */
const soFar = (text: string): string =>
  `So far${Object.values(untested).includes(text) ? ',' : ':'} ${plainOpenings.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text}`;

/**
 * The finding while codes are closed: how far codes can be told apart, without saying which is the control.
 * @example blindHeadline(finding) // 'By code: three of ten pairs can be told apart.'
 */
export function blindHeadline(finding: Finding): string {
  const { spread } = finding.analysis;
  if (spread !== 'shown') return `By code: nothing can be told apart. ${untested[spread]}`;
  const apart = finding.outcomes.filter((p) => p.verdict === 'better').length;
  const total = finding.outcomes.length;
  if (apart === 0) return 'By code: nothing can be told apart.';
  return apart === total
    ? 'By code: every code can be told from every other.'
    : `By code: ${countWord(apart)} of ${countWord(total)} pairs can be told apart.`;
}

/**
 * The finding in one sentence, built from the contrasts.
 * @example headline(finding, nameOf) // 'Two of four contenders beat Water; nothing separates the two.'
 */
export function headline(finding: Finding, nameOf: NameOf): string {
  const { spread } = finding.analysis;
  // Scores that are nearly all level can't be told apart, and be as good all the same.
  const asGood = spread === 'shown' || spread === 'tooFew' ? asGoodHeadline(finding, nameOf) : null;
  const text =
    asGood ??
    untested[spread] ??
    (finding.peers
      ? betweenPeers(finding, nameOf)
      : finding.ownControls.length > 0
        ? againstOwn(finding, nameOf)
        : tested(finding, nameOf));
  return isSoFar(finding) ? soFar(text) : text;
}

/**
 * Whether others are as good as what they are held against; null where that isn't asked, or no difference that matters
 * was set.
 * @example 'B is as good as A, to within 5 g; C may fall short by more.'
 */
export function asGoodHeadline(finding: Finding, nameOf: NameOf): string | null {
  const { asGood, smallestDifference, trait } = finding;
  const size = asGood?.[0]?.within ?? smallestDifference;
  if (!asGood || asGood.length === 0 || size === null || size === undefined) return null;
  const against = nameOf(asGood[0]!.against);
  const within = `${formatFigure(size, trait.decimals)} ${trait.unit || 'steps'}`;
  const of = (...verdicts: AsGoodVerdict[]) =>
    asGood.filter((g) => verdicts.includes(g.verdict)).map((g) => nameOf(g.id));
  const one = (names: readonly string[], single: string, many: string) =>
    `${listNames(names)} ${names.length === 1 ? single : many}`;
  const say: [AsGoodVerdict[], (names: string[]) => string][] = [
    [['better'], (n) => `${one(n, 'is', 'are')} better than ${against}`],
    [['asGood'], (n) => `${one(n, 'is', 'are')} as good as ${against}, to within ${within}`],
    [['short'], (n) => `${one(n, 'falls', 'fall')} short of ${against} by more than ${within}`],
    [
      ['worse'],
      (n) => `${one(n, 'is', 'are')} worse than ${against} (whether by more than ${within} can’t be told)`,
    ],
    [
      ['open'],
      (n) => `whether ${one(n, 'is', 'are')} as good as ${against}, to within ${within}, can’t be told`,
    ],
  ];
  const said = say.flatMap(([verdicts, sentence]) => {
    const names = of(...verdicts);
    return names.length > 0 ? [sentence(names)] : [];
  });
  return said.length === 0 ? null : `${sentenceCase(said.join('; '))}.`;
}

/** Equals in a sentence: who leads, and whether anything separates them. */
function betweenPeers(finding: Finding, nameOf: NameOf): string {
  const { outcomes, ranking } = finding;
  const names = listNames(ranking.map((r) => nameOf(r.name)));
  const all = ranking.length === 2 ? names : `the ${countWord(ranking.length)}`;
  if (outcomes.every((o) => o.verdict === 'alike')) return `No difference that matters between ${all}.`;
  if (outcomes.every((o) => o.verdict !== 'better')) {
    return ranking.length === 2
      ? `Between ${names}: too close to call.`
      : `Nothing separates ${all}: too close to call.`;
  }
  const top = leaders(finding);
  if (top.length > 1) return `${sentenceCase(listNames(top.map(nameOf)))} share the lead.`;
  const beaten = outcomes.filter((o) => o.verdict === 'better' && o.ahead === top[0]).length;
  if (ranking.length === 2) {
    const other = ranking.find((r) => r.name !== top[0])!;
    return `${nameOf(top[0]!)} beat ${nameOf(other.name)}.`;
  }
  return beaten === ranking.length - 1
    ? `${nameOf(top[0]!)} beat all the others.`
    : `${nameOf(top[0]!)} came first.`;
}

/** A factorial in a sentence: each combination against its own control. */
function againstOwn(finding: Finding, nameOf: NameOf): string {
  const said = finding.ownControls.map(({ id, control }) => {
    const outcome = outcomeOf(finding, id, control);
    const clear = outcome?.verdict === 'better';
    return {
      did: !clear ? null : outcome.ahead === id ? 'beat' : 'did worse than',
      text: `${nameOf(id)} ${clear && outcome.ahead !== id ? 'did worse than' : 'beat'} ${nameOf(control)}`,
    };
  });
  const clear = said.filter((s) => s.did !== null);
  const total = said.length;
  if (clear.length === 0) {
    return total === 1
      ? `${nameOf(finding.ownControls[0]!.id)} against ${nameOf(finding.ownControls[0]!.control)}: too close to call.`
      : `None of the ${countWord(total)} was clearly better or worse than its own control.`;
  }
  if (clear.length <= 3) return `${sentenceCase(clear.map((s) => s.text).join('; '))}.`;
  const better = clear.filter((s) => s.did === 'beat').length;
  return `Against its own control ${countWord(better)} of ${countWord(total)} did better, ${countWord(clear.length - better)} worse.`;
}

function tested(finding: Finding, nameOf: NameOf): string {
  const { versusControl, control: controlId } = finding.analysis;
  const control = nameOf(controlId);
  const { better, worse } = againstControl(finding);
  const total = versusControl.length;
  const names = (list: readonly { a: string }[]) => listNames(list.map((v) => nameOf(v.a)));

  if (better.length === 0) {
    if (worse.length > 0) {
      return `${sentenceCase(names(worse))} did worse than ${control}; nothing did better.`;
    }
    const all = (verdict: string) =>
      versusControl.every((v) => outcomeOf(finding, v.a, controlId)?.verdict === verdict);
    const none = total === 2 ? 'Neither of the two' : `None of the ${countWord(total)}`;
    if (all('alike')) {
      return total === 1
        ? `${names(versusControl)} made no difference that matters.`
        : `${none} contenders made a difference that matters.`;
    }
    if (total === 1) return `${names(versusControl)} against ${control}: too close to call.`;
    if (all('tooClose')) {
      return `Too close to call: the spread is wider than any difference from ${control}.`;
    }
    return `${none} contenders was clearly better than ${control}.`;
  }

  const head =
    total === 1
      ? `${names(better)} beat ${control}`
      : better.length === total
        ? `All ${countWord(total)} contenders beat ${control}`
        : better.length === 1
          ? `Only ${names(better)} beat ${control}`
          : `${sentenceCase(countWord(better.length))} of ${countWord(total)} contenders beat ${control}`;
  const top = leaders(finding);
  const tail = () => {
    if (worse.length > 0) return `; ${names(worse)} did worse`;
    if (better.length === 1) return '';
    if (top.length === 1) return `; ${nameOf(top[0]!)} came first`;
    const winners = better.map((b) => b.a);
    if (inseparable(finding, winners)) {
      return winners.length === 2
        ? '; nothing separates the two'
        : `; nothing separates the ${countWord(winners.length)}`;
    }
    return `; ${listNames(top.map(nameOf))} share the lead`;
  };
  return `${head}${tail()}.`;
}
