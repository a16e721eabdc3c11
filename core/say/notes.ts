import { type Contrast, turned } from '../analysis/contrast';
import { comparedValue } from '../analysis/goodness';
import { wilson } from '../stats/proportion';
import { formatFigure, listNames, plural } from '../quantity/format';
import type { Finding } from '../account/finding';
import { untested } from './headline';
import {
  type NameOf,
  decimalsOfFinding,
  nearEnd,
  sayInterval,
  sayPair,
  sayNone,
  saySize,
} from './sayContrast';
import { againstControl, leaders, outcomeOf } from '../account/outcomes';

/** A sentence or two with the tone it is shown in. */
export interface Note {
  tone: 'good' | 'open' | 'bad' | 'plain';
  title: string;
  text: string;
}

/** The notes beside the chart: who beat the control, who didn't, what is too close to call. */
export function notes(finding: Finding, nameOf: NameOf, unitNoun: string): Note[] {
  const { smallestDifference: d, trait, analysis } = finding;
  const title = untested[analysis.spread];
  const apart = offTypes(finding, nameOf);
  const beside = apart ? [apart] : [];
  if (title !== null) return [{ tone: 'open', title, text: whyUntested(finding, unitNoun) }, ...beside];
  if (finding.peers) return [...peerNotes(finding, nameOf), ...beside];
  const control = nameOf(analysis.control);
  const out: Note[] = [];
  const { better, worse, open } = againstControl(finding);
  const list = (cs: readonly Contrast[]) => listNames(cs.map((c) => nameOf(c.a)));
  const changes = (cs: readonly Contrast[]) => listNames(cs.map((c) => saySize(c, finding)));
  const dText = d === null ? '' : `${formatFigure(d, trait.decimals)} ${trait.unit}`.trim();
  const pairs = analysis.pairs[0]?.scale === 'superiority';
  const by = pairs ? 'Ahead in' : 'By';
  if (better.length > 0) {
    out.push({
      tone: 'good',
      title: `${list(better)} beat ${control}.`,
      text: `${by} ${changes(better)}${d === null ? '' : atTheLowEnd(finding, better, d, dText, nameOf)}.`,
    });
  }
  if (worse.length > 0) {
    out.push({
      tone: 'bad',
      title: `${list(worse)} did worse than ${control}.`,
      text: `${pairs ? 'Behind in' : 'By'} ${changes(worse)}.`,
    });
  }
  const alike = open.filter((c) => outcomeOf(finding, c.a, analysis.control)?.verdict === 'alike');
  const unclear = open.filter((c) => !alike.includes(c));
  if (alike.length > 0) {
    out.push({
      tone: 'plain',
      title: `${list(alike)}: no better than ${control}.`,
      text: `Any difference is smaller than the ${dText} that matters.`,
    });
  }
  if (unclear.length > 0) {
    out.push({
      tone: 'open',
      title: `${list(unclear)} against ${control}: too close to call.`,
      text: `${unclear.map((c) => `${nameOf(c.a)} ${sayInterval(c, finding)}`).join('; ')}. The interval holds ${sayNone(analysis.pairs[0]!.scale)}.`,
    });
  }
  const inside = insideBand(finding, nameOf);
  if (inside) out.push(inside);
  out.push(...beside);
  if (finding.ownControls.length > 0) out.unshift(ownNote(finding, nameOf));
  const top = better.map((c) => c.a).filter((n) => leaders(finding).includes(n));
  if (top.length > 1) out.push(betweenLeaders(finding, top, nameOf, unitNoun, dText));
  return out;
}

/** Equals: the pairs that are told apart, and those that aren't. */
function peerNotes(finding: Finding, nameOf: NameOf): Note[] {
  const of = (verdicts: readonly string[]) =>
    finding.outcomes.flatMap((o) => {
      if (!verdicts.includes(o.verdict)) return [];
      const pair = finding.analysis.pairs.find((p) => p.a === o.a && p.b === o.b)!;
      return [sayPair(o.ahead === o.b ? turned(pair) : pair, finding, nameOf)];
    });
  const [apart, close, alike] = [of(['better']), of(['tooClose', 'leaning']), of(['alike'])];
  const note = (tone: Note['tone'], title: string, lines: string[]): Note[] =>
    lines.length === 0 ? [] : [{ tone, title, text: `${lines.join('; ')}.` }];
  return [
    ...note('good', 'Told apart, the better one first.', apart),
    ...note('plain', 'No difference that matters.', alike),
    ...note('open', 'Too close to call.', close),
  ];
}

/** Each combination of a factorial against its own control, with its interval over all pairs. */
function ownNote(finding: Finding, nameOf: NameOf): Note {
  const lines = finding.ownControls.flatMap(({ id, control }) => {
    const pair = finding.analysis.pairs.find(
      (p) => (p.a === id && p.b === control) || (p.a === control && p.b === id),
    );
    if (!pair) return [];
    return [sayPair(pair.a === id ? pair : turned(pair), finding, nameOf)];
  });
  return {
    tone: 'plain',
    title: 'Each against its own control.',
    text: `${lines.join('; ')}. The control of a combination has the same levels, without what it adds.`,
  };
}

/** What the near end of each interval is worth: said of each contender it holds for, of no other. */
function atTheLowEnd(
  finding: Finding,
  better: readonly Contrast[],
  d: number,
  dText: string,
  nameOf: NameOf,
): string {
  const more = better.filter((c) => nearEnd(c, finding) >= d);
  const less = better.filter((c) => nearEnd(c, finding) < d);
  if (less.length === 0) return `, even at the low end more than the ${dText} that matters`;
  if (more.length === 0) return `; at the low end less than the ${dText} that matters`;
  const names = (cs: readonly Contrast[]) => listNames(cs.map((c) => nameOf(c.a)));
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
  const pair = analysis.pairs.find((p) => top.includes(p.a) && top.includes(p.b))!;
  const names = listNames(top.map(nameOf));
  if (top.length === 2 && outcomeOf(finding, pair.a, pair.b)?.verdict === 'alike') {
    return {
      tone: 'plain',
      title: `${names}: no difference that matters.`,
      text: `What lies between them is smaller than ${dText}.`,
    };
  }
  const n = Math.min(...analysis.summaries.map((t) => t.n));
  const sees = `${halfWidth(pair, finding)} between two of them is what ${n} ${plural(unitNoun)} each can see`;
  return {
    tone: 'open',
    title: `Between ${names}: too close to call.`,
    text: `${top.length === 2 ? `${sayPair(pair, finding, nameOf)}. ` : ''}${sees}${
      replicatesToSee && dText ? `; about ${replicatesToSee} each would see ±${dText}.` : '.'
    }`,
  };
}

/** Half the width of an interval, as what can be seen. @example '±4.2 g' */
function halfWidth(c: Contrast, finding: Finding): string {
  const { trait } = finding;
  if (c.scale === 'ratio') return `±${formatFigure(50 * (c.high! - c.low!), 0)} %`;
  if (c.scale === 'superiority') return `±${formatFigure(5 * (c.high! - c.low!), 1)} of ten pairs`;
  return `±${formatFigure((c.high! - c.low!) / 2, decimalsOfFinding(finding))} ${trait.unit}`.trimEnd();
}

/** Of a wanted band: how many of each contender's units are inside, with Wilson's limits; null for other traits. */
function insideBand({ trait, units, analysis }: Finding, nameOf: NameOf): Note | null {
  if (trait.direction !== 'band') return null;
  const said = analysis.summaries.map((s) => {
    const own = units.filter((u) => u.treatmentId === s.name);
    const k = own.filter((u) => comparedValue(trait, u.value) === 0).length;
    const { low, high } = wilson(k, own.length, analysis.alpha);
    return `${nameOf(s.name)} ${k}/${own.length} (${Math.round(100 * low!)} to ${Math.round(100 * high!)} %)`;
  });
  return { tone: 'plain', title: 'Inside the wanted band.', text: `${said.join('; ')}.` };
}

/** Of k of n: what was counted and isn't true to type, with Wilson's limits; null where nothing was. */
function offTypes({ units, analysis }: Finding, nameOf: NameOf): Note | null {
  if (!units.some((u) => u.counted?.offType)) return null;
  const said = analysis.summaries.map((s) => {
    const own = units.flatMap((u) => (u.treatmentId === s.name && u.counted ? [u.counted] : []));
    const k = own.reduce((sum, c) => sum + (c.offType ?? 0), 0);
    const n = own.reduce((sum, c) => sum + c.k, 0);
    if (n === 0) return `${nameOf(s.name)} 0 of none`;
    const { low, high } = wilson(k, n, analysis.alpha);
    return `${nameOf(s.name)} ${k}/${n} (${Math.round(100 * low!)} to ${Math.round(100 * high!)} %)`;
  });
  return { tone: 'plain', title: 'Not true to type, of those counted.', text: `${said.join('; ')}.` };
}
