import type { Spread } from '../analysis/analysis';
import { countWord, formatFigure, listNames, sentenceCase } from '../quantity/format';
import type { AsGoodVerdict } from '../account/asGood';
import type { Finding } from '../account/finding';
import {
  type Held,
  againstControl,
  heldOf,
  inseparable,
  isSoFar,
  leaders,
  outcomeOf,
  soleControl,
} from '../account/outcomes';
import { differenceUnit, sayReservation } from './sayContrast';
import type { NameOf } from '../model/nameOf';
import { type Fact, type Statement, statement, together } from './statement';

/** Why nothing was tested, as a headline; null where something was. */
export const untested: Record<Spread, string | null> = {
  shown: null,
  oneEach: 'One unit each: numbers, no winner.',
  noFreedom: 'No spread left to go by: numbers, no winner.',
  zero: 'No spread was seen: numbers, no winner.',
  tooFew: 'Too few units for this test: numbers, no winner.',
  alone: 'One contender alone has values: numbers, nothing to hold them against.',
  disconnected: 'No block holds both: numbers, no winner.',
};

/** Words a headline may begin with that aren't names. */
const plainOpenings =
  /^(Whether|One|Two|Three|Four|Five|Six|Seven|Eight|Nine|Ten|Only|All|Both|Neither|None|Nothing|Too|No) /;

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
  const tested = finding.outcomes.filter((p) => p.verdict !== 'untested');
  const apart = tested.filter((p) => p.verdict === 'better').length;
  if (apart === 0) return 'By code: nothing can be told apart.';
  const all = finding.lost.length + finding.absent.length === 0;
  if (apart === finding.outcomes.length)
    return `By code: every code${all ? '' : ' that has a figure'} can be told from every other.`;
  const which = tested.length < finding.outcomes.length ? ' that could be tested' : '';
  return `By code: ${countWord(apart)} of ${countWord(tested.length)} pairs${which} can be told apart.`;
}

/** What the outcome of a pair claims. */
export function factOf(finding: Finding, a: string, b: string): Fact[] {
  const outcome = outcomeOf(finding, a, b);
  if (!outcome) return [];
  const { verdict, ahead } = outcome;
  if (verdict === 'better') return [{ is: 'better', a: ahead!, b: ahead === a ? b : a }];
  if (verdict === 'untested') return [{ is: 'untested', a, b }];
  return verdict === 'alike' && finding.smallestDifference !== null
    ? [{ is: 'alike', a, b, within: finding.smallestDifference }]
    : [{ is: 'notTold', a, b }];
}

/** What is claimed of contenders held against their controls. */
export const heldFacts = (finding: Finding, held: readonly Held[]): Fact[] =>
  held.flatMap((h) => factOf(finding, h.id, h.control));

/** What is claimed of all pairs among these. */
const pairFacts = (finding: Finding, ids: readonly string[]): Fact[] =>
  ids.flatMap((a, i) => ids.slice(i + 1).flatMap((b) => factOf(finding, a, b)));

const leadFacts = (ids: readonly string[]): Fact[] => ids.map((a) => ({ is: 'leads', a }));

/**
 * The finding in one sentence, built from the contrasts.
 * @example headline(finding, nameOf).text // 'Two of four contenders beat Water; nothing separates the two.'
 */
export function headline(finding: Finding, nameOf: NameOf): Statement {
  const { spread } = finding.analysis;
  // Scores that are nearly all level can't be told apart, and be as good all the same.
  const asGood = spread === 'shown' || spread === 'tooFew' ? asGoodHeadline(finding, nameOf) : null;
  const why = untested[spread];
  const said =
    asGood ??
    (why !== null
      ? statement(
          'headline',
          why,
          pairFacts(
            finding,
            finding.analysis.summaries.map((s) => s.name),
          ),
        )
      : finding.peers
        ? betweenPeers(finding, nameOf)
        : soleControl(finding) === null
          ? againstOwn(finding, nameOf)
          : tested(finding, nameOf));
  return together('headline', [
    { ...said, text: isSoFar(finding) ? soFar(said.text) : said.text },
    ...[lostControls(finding, nameOf), absentOthers(finding, nameOf)].filter((s) => s !== null),
  ]);
}

/**
 * Contenders that no sentence of the finding is about; null where each has a figure.
 * @example 'Without a figure: Lento (died), Verde (not measured).'
 */
function absentOthers({ absent }: Finding, nameOf: NameOf): Statement | null {
  if (absent.length === 0) return null;
  return statement(
    'headline',
    `Without a figure: ${absent.map((l) => `${nameOf(l.id)} (${l.why})`).join(', ')}.`,
    absent.map((l): Fact => ({ is: 'noFigure', a: l.id })),
  );
}

/**
 * What can't be held against anything because its control has no figure.
 * @returns null where no control is missing
 * @example 'Water, the control, has no figure (died): what is said holds between the others alone.'
 */
export function lostControls(finding: Finding, nameOf: NameOf): Statement | null {
  const { lost, peers } = finding;
  if (lost.length === 0) return null;
  const who = listNames(lost.map((l) => `${nameOf(l.id)} (${l.why})`));
  const [one, has] = [lost.length === 1, lost.length === 1 ? 'has' : 'have'];
  const facts: Fact[] = [
    ...lost.map((l): Fact => ({ is: 'noFigure', a: l.id })),
    ...(finding.controls.length === 0 ? [{ is: 'noControl' } as const] : []),
  ];
  return statement(
    'headline',
    peers
      ? `The control, ${who}, ${has} no figure: whether anything does better than it this trial can’t tell.`
      : `${one ? 'A control' : 'Controls'} without a figure: ${who}. What stands on ${one ? 'its' : 'their'} ground has nothing to be held against.`,
    facts,
  );
}

/**
 * Whether others are as good as what they are held against; null where that isn't asked, or no difference that matters
 * was set.
 * @example 'B is as good as A, to within 5 g; C may fall short by more.'
 */
function asGoodHeadline(finding: Finding, nameOf: NameOf): Statement | null {
  const { asGood, smallestDifference, trait } = finding;
  const size = asGood?.[0]?.within ?? smallestDifference;
  if (!asGood || asGood.length === 0 || size === null || size === undefined) return null;
  const against = nameOf(asGood[0]!.against);
  const within = `${formatFigure(size, trait.decimals)} ${differenceUnit(finding) || 'steps'}`;
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
  const sentences = say.flatMap(([verdicts, sentence]) => {
    const names = of(...verdicts);
    return names.length > 0 ? [sentence(names)] : [];
  });
  if (sentences.length === 0) return null;
  const facts = asGood.flatMap(({ id, against: b, verdict }): Fact[] =>
    verdict === 'better'
      ? [{ is: 'better', a: id, b }]
      : verdict === 'worse'
        ? [{ is: 'better', a: b, b: id }]
        : [{ is: 'figure', a: id }],
  );
  return statement('headline', `${sentenceCase(sentences.join('; '))}.`, facts);
}

/** Whoever has no figure isn't among those counted. */
const ofThose = ({ absent }: Finding): string => (absent.length > 0 ? ' that have a figure' : '');

/** Equals in a sentence: who leads, and whether anything separates them. */
function betweenPeers(finding: Finding, nameOf: NameOf): Statement {
  const { outcomes, ranking } = finding;
  const ids = ranking.map((r) => r.name);
  const names = listNames(ids.map(nameOf));
  const all = ids.length === 2 ? names : `the ${countWord(ids.length)}`;
  const facts: Fact[] = [
    ...pairFacts(finding, ids),
    ...(finding.controls.length === 0 ? [{ is: 'noControl' } as const] : []),
  ];
  const say = (text: string, more: readonly Fact[] = []) => statement('headline', text, [...facts, ...more]);
  const tested = outcomes.filter((o) => o.verdict !== 'untested');
  if (tested.length === 0) return say(`Nothing could be tested between ${all}: numbers, no winner.`);
  const some = tested.length < outcomes.length ? '; not all of them could be tested' : '';
  if (outcomes.every((o) => o.verdict === 'alike')) return say(`No difference that matters between ${all}.`);
  if (tested.every((o) => o.verdict !== 'better')) {
    return say(
      ids.length === 2
        ? `Between ${names}: too close to call.`
        : `Nothing was told apart among ${all}: too close to call${some}.`,
    );
  }
  const top = leaders(finding);
  if (top.length > 1)
    return say(`${sentenceCase(listNames(top.map(nameOf)))} share the lead${some}.`, leadFacts(top));
  if (top.length === 0) return say(`Some of ${all} were told apart${some}.`);
  const beaten = outcomes.filter((o) => o.verdict === 'better' && o.ahead === top[0]);
  const size = sayReservation(finding, beaten, nameOf);
  if (ids.length === 2) {
    const other = ids.find((id) => id !== top[0])!;
    return say(`${nameOf(top[0]!)} beat ${nameOf(other)}${size}.`, leadFacts(top));
  }
  return say(
    beaten.length === ids.length - 1
      ? `${nameOf(top[0]!)} beat all the others${ofThose(finding)}${size}.`
      : `${nameOf(top[0]!)} came first${some}.`,
    leadFacts(top),
  );
}

/** Each against its own control, where there are several. */
function againstOwn(finding: Finding, nameOf: NameOf): Statement {
  const held = heldOf(finding);
  const { better, worse, open, untested: not } = againstControl(finding);
  const clear = held.filter((h) => h.outcome.verdict === 'better');
  const total = held.length;
  const say = (text: string) => statement('headline', text, heldFacts(finding, held));
  const pairText = (h: Held) =>
    `${nameOf(h.id)} ${h.outcome.ahead === h.id ? 'beat' : 'did worse than'} ${nameOf(h.control)}`;
  if (not.length === total)
    return say('Nothing could be tested against its own control: numbers, no winner.');
  if (clear.length === 0) {
    const [only] = open;
    return say(
      total === 1
        ? `${nameOf(only!.id)} against ${nameOf(only!.control)}: too close to call.`
        : `None of the ${countWord(total)} was shown to be better or worse than its own control.`,
    );
  }
  const size = sayReservation(
    finding,
    better.map((h) => h.outcome),
    nameOf,
  );
  if (clear.length <= 3) return say(`${sentenceCase(clear.map(pairText).join('; '))}${size}.`);
  return say(
    `Against its own control ${countWord(better.length)} of ${countWord(total)} did better, ${countWord(worse.length)} worse${size}.`,
  );
}

/** All against the one control. */
function tested(finding: Finding, nameOf: NameOf): Statement {
  const control = nameOf(soleControl(finding)!);
  const held = heldOf(finding);
  const { better, worse, open, untested: not } = againstControl(finding);
  const total = held.length;
  const names = (list: readonly Held[]) => listNames(list.map((h) => nameOf(h.id)));
  const say = (text: string, more: readonly Fact[] = []) =>
    statement('headline', text, [
      ...heldFacts(finding, held),
      { is: 'control', a: soleControl(finding)! },
      ...more,
    ]);
  const those = ofThose(finding);
  const contenders = `contenders${those}`;
  const without = not.length > 0 ? `; ${names(not)} couldn’t be tested` : '';
  const size = sayReservation(
    finding,
    better.map((h) => h.outcome),
    nameOf,
  );

  if (better.length === 0) {
    if (not.length === total) return say(`Nothing could be tested against ${control}: numbers, no winner.`);
    if (worse.length > 0)
      return say(
        `${sentenceCase(names(worse))} did worse than ${control}; none was shown to be better${without}.`,
      );
    const all = (verdict: string) => open.every((h) => h.outcome.verdict === verdict);
    const none = total === 2 ? 'Neither of the two' : `None of the ${countWord(total)}`;
    if (all('alike') && without === '') {
      return say(
        total === 1
          ? `${names(open)} made no difference that matters.`
          : `${none} ${contenders} made a difference that matters.`,
      );
    }
    if (total === 1) return say(`${names(open)} against ${control}: too close to call.`);
    return say(
      all('tooClose')
        ? `Too close to call: ${none.charAt(0).toLowerCase()}${none.slice(1)} ${contenders} could be told from ${control}${without}.`
        : `${none} ${contenders} was shown to be better than ${control}${without}.`,
    );
  }

  const head =
    total === 1
      ? `${names(better)} beat ${control}`
      : better.length === total
        ? total === 2
          ? `Both${those === '' ? '' : ` ${contenders}`} beat ${control}`
          : `All ${countWord(total)} ${contenders} beat ${control}`
        : better.length === 1
          ? `Only ${names(better)} beat ${control}`
          : `${sentenceCase(countWord(better.length))} of ${countWord(total)} ${contenders} beat ${control}`;
  const top = leaders(finding);
  const winners = better.map((h) => h.id);
  if (worse.length > 0) return say(`${head}${size}; ${names(worse)} did worse${without}.`);
  if (better.length === 1 || top.length === 0) return say(`${head}${size}${without}.`);
  if (top.length === 1)
    return say(`${head}${size}; ${nameOf(top[0]!)} came first${without}.`, leadFacts(top));
  if (inseparable(finding, winners))
    return say(
      `${head}${size}; nothing separates the ${countWord(winners.length)}${without}.`,
      pairFacts(finding, winners),
    );
  return say(`${head}${size}; ${listNames(top.map(nameOf))} share the lead${without}.`, leadFacts(top));
}
