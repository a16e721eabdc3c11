import type { Spread } from '../analysis/analysis';
import { countWord, listNames, sentenceCase } from '../quantity/format';
import type { Finding } from './finding';
import type { NameOf } from './sayContrast';
import { againstControl, inseparable, isSoFar, leaders, outcomeOf } from './standings';

/** Why nothing was tested, as a headline; null where something was. */
export const untested: Record<Spread, string | null> = {
  shown: null,
  oneEach: 'One unit each: numbers, no winner.',
  noFreedom: 'No spread left to go by: numbers, no winner.',
  zero: 'No spread was seen: numbers, no winner.',
  tooFew: 'Too few units for this test: numbers, no winner.',
};

/** Words a headline may begin with that aren't names. */
const plainOpenings = /^(One|Two|Three|Four|Five|Six|Seven|Eight|Nine|Ten|Only|All|Neither|None|Too|No) /;

/** A headline that later rounds may still change. @example soFar('Only A beat Water.') // 'So far: only A beat Water.' */
const soFar = (text: string): string =>
  `So far: ${plainOpenings.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text}`;

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
  const text = untested[finding.analysis.spread] ?? tested(finding, nameOf);
  return isSoFar(finding) ? soFar(text) : text;
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
