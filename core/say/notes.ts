import type { Contrast } from '../analysis/contrast';
import { comparedValue } from '../analysis/goodness';
import { wilson } from '../stats/proportion';
import { countOf, formatFigure, listNames, plural, sentenceCase } from '../quantity/format';
import type { Finding } from '../account/finding';
import {
  type AgainstControl,
  type Held,
  againstControl,
  contrastOf,
  heldOf,
  leaders,
  outcomeOf,
} from '../account/outcomes';
import { factOf, heldFacts, lostControls, untested } from './headline';
import {
  decimalsOfFinding,
  differenceUnit,
  nearEnd,
  sayInterval,
  sayNone,
  sayPair,
  saySize,
  sayWhyNot,
} from './sayContrast';
import type { NameOf } from '../model/nameOf';
import type { Fact } from './statement';

/** A sentence or two with the tone it is shown in, and what must be true for it. */
export interface Note {
  tone: 'good' | 'open' | 'bad' | 'plain';
  title: string;
  text: string;
  facts: readonly Fact[];
}

/** The notes beside the chart: who beat the control, who didn't, what is too close to call. */
export function notes(finding: Finding, nameOf: NameOf, unitNoun: string): Note[] {
  const { analysis } = finding;
  const title = untested[analysis.spread];
  const apart = offTypes(finding, nameOf);
  const beside = [...(apart ? [apart] : []), ...leftWithOne(finding, nameOf, unitNoun)];
  const missing = lostControls(finding, nameOf);
  const lost: Note[] = missing
    ? [{ tone: 'open', title: 'A control is missing.', text: missing.text, facts: missing.facts }]
    : [];
  if (title !== null)
    return [{ tone: 'open', title, text: whyUntested(finding, unitNoun), facts: [] }, ...lost, ...beside];
  if (finding.peers) return [...lost, ...peerNotes(finding, nameOf, unitNoun), ...beside];
  const inside = insideBand(finding, nameOf);
  const groups = againstControl(finding);
  const controls = [...new Set(heldOf(finding).map((h) => h.control))];
  const dText = differenceText(finding);
  const out = controls.flatMap((control) =>
    controlNotes(finding, groups, control, { dText, unitNoun }, nameOf),
  );
  if (inside) out.push(inside);
  out.push(...lost, ...beside);
  const top = groups.better.map((h) => h.id).filter((n) => leaders(finding).includes(n));
  if (controls.length === 1 && top.length > 1)
    out.push(betweenLeaders(finding, top, nameOf, unitNoun, dText));
  return out;
}

/** The difference that matters with its unit; empty where none was set. @example '6 g' */
const differenceText = (finding: Finding): string =>
  finding.smallestDifference === null
    ? ''
    : `${formatFigure(finding.smallestDifference, finding.trait.decimals)} ${differenceUnit(finding)}`.trim();

/** What those did that are held against one control. */
function controlNotes(
  finding: Finding,
  groups: AgainstControl,
  controlId: string,
  { dText, unitNoun }: { dText: string; unitNoun: string },
  nameOf: NameOf,
): Note[] {
  const { smallestDifference: d, analysis } = finding;
  const control = nameOf(controlId);
  const own = (list: readonly Held[]) => list.filter((h) => h.control === controlId);
  const list = (hs: readonly Held[]) => listNames(hs.map((h) => nameOf(h.id)));
  const changes = (hs: readonly Held[]) => listNames(hs.map((h) => saySize(h.contrast, finding)));
  const pairs = analysis.pairs[0]?.scale === 'superiority';
  const noteOf = (tone: Note['tone'], hs: readonly Held[], title: string, text: string): Note[] =>
    hs.length === 0 ? [] : [{ tone, title, text, facts: heldFacts(finding, hs) }];
  const [better, worse, open, not] = [groups.better, groups.worse, groups.open, groups.untested].map(own);
  const alike = open!.filter((h) => h.outcome.verdict === 'alike');
  const unclear = open!.filter((h) => !alike.includes(h));
  return [
    ...noteOf(
      'good',
      better!,
      `${list(better!)} beat ${control}.`,
      `${pairs ? 'Ahead in' : 'By'} ${changes(better!)}${d === null ? '' : atTheLowEnd(finding, better!, d, dText, nameOf)}.`,
    ),
    ...noteOf(
      'bad',
      worse!,
      `${list(worse!)} did worse than ${control}.`,
      `${pairs ? 'Behind in' : 'By'} ${changes(worse!)}.`,
    ),
    ...noteOf(
      'plain',
      alike,
      `${list(alike)}: no better than ${control}.`,
      `Any difference is smaller than the ${dText} that matters.`,
    ),
    ...noteOf(
      'open',
      unclear,
      `${list(unclear)} against ${control}: too close to call.`,
      `${unclear.map((h) => `${nameOf(h.id)} ${sayInterval(h.contrast, finding)}`).join('; ')}. The interval holds ${sayNone(analysis.pairs[0]?.scale ?? 'difference')}.`,
    ),
    ...noteOf(
      'open',
      not!,
      `${list(not!)} against ${control}: not tested.`,
      `${sentenceCase(not!.map((h) => `${nameOf(h.id)}: ${sayWhyNot(finding, h.id, h.control, unitNoun)}`).join('; '))}. The numbers stand.`,
    ),
  ];
}

/** Contenders that one unit is left of, beside others with more. */
function leftWithOne({ analysis }: Finding, nameOf: NameOf, unitNoun: string): Note[] {
  const one = analysis.summaries.filter((s) => s.n === 1);
  if (one.length === 0 || one.length === analysis.summaries.length) return [];
  return [
    {
      tone: 'open',
      title: `${listNames(one.map((s) => nameOf(s.name)))}: one ${unitNoun} alone.`,
      text: `A number, no winner: what it says may be the ${unitNoun} or where it stood.`,
      facts: one.map((s) => ({ is: 'units', a: s.name, n: 1 })),
    },
  ];
}

/** Equals: the pairs that are told apart, those that aren't, and those that couldn't be tested. */
function peerNotes(finding: Finding, nameOf: NameOf, unitNoun: string): Note[] {
  const note = (tone: Note['tone'], title: string, verdicts: readonly string[]): Note[] => {
    const pairs = finding.outcomes.filter((o) => verdicts.includes(o.verdict));
    if (pairs.length === 0) return [];
    const lines = pairs.map((o) => {
      const [a, b] = o.ahead === o.b ? [o.b, o.a] : [o.a, o.b];
      const pair = contrastOf(finding, a, b)!;
      return o.verdict === 'untested'
        ? `${nameOf(a)} and ${nameOf(b)}: ${sayWhyNot(finding, a, b, unitNoun)}`
        : sayPair(pair, finding, nameOf);
    });
    return [
      { tone, title, text: `${lines.join('; ')}.`, facts: pairs.flatMap((o) => factOf(finding, o.a, o.b)) },
    ];
  };
  return [
    ...note('good', 'Told apart, the better one first.', ['better']),
    ...note('plain', 'No difference that matters.', ['alike']),
    ...note('open', 'Too close to call.', ['tooClose', 'leaning']),
    ...note('open', 'Not tested.', ['untested']),
  ];
}

/** What the near end of each interval is worth: said of each contender it holds for, of no other. */
function atTheLowEnd(
  finding: Finding,
  better: readonly Held[],
  d: number,
  dText: string,
  nameOf: NameOf,
): string {
  const more = better.filter((h) => nearEnd(h.contrast, finding) >= d);
  const less = better.filter((h) => nearEnd(h.contrast, finding) < d);
  if (better.every((h) => h.outcome.tooSmall))
    return `; even at the high end less than the ${dText} that matters`;
  if (less.length === 0) return `, even at the low end more than the ${dText} that matters`;
  if (more.length === 0) return `; at the low end less than the ${dText} that matters`;
  const names = (hs: readonly Held[]) => listNames(hs.map((h) => nameOf(h.id)));
  return `; at the low end ${names(more)} more, ${names(less)} less than the ${dText} that matters`;
}

/** Why there is nothing to test against, and what would help. */
function whyUntested({ analysis }: Finding, unitNoun: string): string {
  const many = plural(unitNoun);
  switch (analysis.spread) {
    case 'shown':
      return '';
    case 'oneEach':
      return `A difference between two single ${many} may be the ${unitNoun}, the position or the product. Two or more ${many} of each would tell.`;
    case 'noFreedom':
      return `Once blocks are taken off nothing is left that shows how much ${many} of one contender differ. More ${many} of each would tell.`;
    case 'zero':
      return `${many.charAt(0).toUpperCase()}${many.slice(1)} of a contender read the same to the last figure recorded, so how much they differ by chance isn’t known. Were they measured one by one, and finely enough?`;
    case 'tooFew':
      return `With so few ${many} even the clearest outcome comes up by chance too often for this test. More ${many} of each would tell.`;
    case 'alone':
      return `There is nothing to hold it against: of the others no ${unitNoun} has a value.`;
    case 'disconnected':
      return `Those that have values stand in different blocks, so a difference may be the block’s.`;
  }
}

function betweenLeaders(
  finding: Finding,
  top: string[],
  nameOf: NameOf,
  unitNoun: string,
  dText: string,
): Note {
  const { analysis, replicatesToSee } = finding;
  const pair = contrastOf(finding, top[0]!, top[1]!)!;
  const facts = top.flatMap((a, i) => top.slice(i + 1).flatMap((b) => factOf(finding, a, b)));
  const names = listNames(top.map(nameOf));
  if (top.length === 2 && outcomeOf(finding, pair.a, pair.b)?.verdict === 'alike') {
    return {
      tone: 'plain',
      title: `${names}: no difference that matters.`,
      text: `What lies between them is smaller than ${dText}.`,
      facts,
    };
  }
  const n = Math.min(...analysis.summaries.map((t) => t.n));
  const sees = `${halfWidth(pair, finding)} between two of them is what ${countOf(n, unitNoun)} each can see`;
  return {
    tone: 'open',
    title: `Between ${names}: too close to call.`,
    text: `${top.length === 2 ? `${sayPair(pair, finding, nameOf)}. ` : ''}${sees}${
      replicatesToSee && dText ? `; about ${replicatesToSee} each would see ±${dText}.` : '.'
    }`,
    facts,
  };
}

/** Half the width of an interval, as what can be seen. @example '±4.2 g' */
function halfWidth(c: Contrast, finding: Finding): string {
  if (c.scale === 'ratio') return `±${formatFigure(50 * (c.high! - c.low!), 0)} %`;
  if (c.scale === 'superiority') return `±${formatFigure(5 * (c.high! - c.low!), 1)} of ten pairs`;
  return `±${formatFigure((c.high! - c.low!) / 2, decimalsOfFinding(finding))} ${differenceUnit(finding)}`.trimEnd();
}

/** Of a wanted band: how many of each contender's units are inside, with Wilson's limits; null for other traits. */
function insideBand({ trait, units, analysis }: Finding, nameOf: NameOf): Note | null {
  if (trait.direction !== 'band') return null;
  const sentences = analysis.summaries.map((s) => {
    const own = units.filter((u) => u.treatmentId === s.name);
    const k = own.filter((u) => comparedValue(trait, u.value) === 0).length;
    const { low, high } = wilson(k, own.length, analysis.alpha);
    return `${nameOf(s.name)} ${k}/${own.length} (${Math.round(100 * low!)} to ${Math.round(100 * high!)} %)`;
  });
  return { tone: 'plain', title: 'Inside the wanted band.', text: `${sentences.join('; ')}.`, facts: [] };
}

/** Of k of n: what was counted and isn't true to type, with Wilson's limits; null where nothing was. */
function offTypes({ units, analysis }: Finding, nameOf: NameOf): Note | null {
  if (!units.some((u) => u.counted?.offType)) return null;
  const sentences = analysis.summaries.map((s) => {
    const own = units.flatMap((u) => (u.treatmentId === s.name && u.counted ? [u.counted] : []));
    const k = own.reduce((sum, c) => sum + (c.offType ?? 0), 0);
    const n = own.reduce((sum, c) => sum + c.k, 0);
    if (n === 0) return `${nameOf(s.name)} 0 of none`;
    const { low, high } = wilson(k, n, analysis.alpha);
    return `${nameOf(s.name)} ${k}/${n} (${Math.round(100 * low!)} to ${Math.round(100 * high!)} %)`;
  });
  return {
    tone: 'plain',
    title: 'Not true to type, of those counted.',
    text: `${sentences.join('; ')}.`,
    facts: [],
  };
}
