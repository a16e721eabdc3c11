import { countWord, formatFigure, formatSigned, listNames, plural, sentenceCase } from '../quantity/format';
import type { Comparison } from '../stats/comparison';
import type { Finding } from './finding';
import type { PairOutcome } from './rank';

/** A sentence or two with the tone it is shown in. */
export interface Note {
  tone: 'good' | 'open' | 'bad' | 'plain';
  title: string;
  text: string;
}

/** What treatments are called: their names, or codes while the trial is blind. */
export type NameOf = (treatmentId: string) => string;

/** The finding sorted into what each treatment did against the control, by Dunnett's interval. */
export function againstControl(finding: Finding) {
  const { comparison, trait } = finding;
  const sign = trait.direction === 'higher' ? 1 : -1;
  const clear = (v: Comparison['versusControl'][number]) =>
    v.low === null || v.high === null ? 0 : v.low > 0 ? sign : v.high < 0 ? -sign : 0;
  return {
    better: comparison.versusControl.filter((v) => clear(v) > 0),
    worse: comparison.versusControl.filter((v) => clear(v) < 0),
    open: comparison.versusControl.filter((v) => clear(v) === 0),
  };
}

const leaders = (finding: Finding): string[] =>
  finding.ranking.filter((r) => r.rank === 1).map((r) => r.name);

const pairOf = (finding: Finding, a: string, b: string): PairOutcome | undefined =>
  finding.pairs.find((p) => (p.a === a && p.b === b) || (p.a === b && p.b === a));

/** Whether nothing separates these treatments from each other. */
function inseparable(finding: Finding, names: readonly string[]): boolean {
  return names.every((a, i) => names.slice(i + 1).every((b) => pairOf(finding, a, b)?.verdict !== 'better'));
}

/**
 * The finding while codes are closed: how far codes can be told apart, without saying which is the control.
 * @example blindHeadline(finding) // 'By code: three of ten pairs can be told apart.'
 */
export function blindHeadline(finding: Finding): string {
  if (!finding.comparison.anova) return 'By code: one unit each, nothing can be told apart.';
  const apart = finding.pairs.filter((p) => p.verdict === 'better').length;
  const total = finding.pairs.length;
  if (apart === 0) return 'By code: nothing can be told apart.';
  return apart === total
    ? 'By code: every code can be told from every other.'
    : `By code: ${countWord(apart)} of ${countWord(total)} pairs can be told apart.`;
}

/**
 * The finding in one sentence, built from the numbers.
 * @example headline(finding, nameOf) // 'Two of four products beat Water; nothing separates the two.'
 */
export function headline(finding: Finding, nameOf: NameOf): string {
  const { comparison } = finding;
  const control = nameOf(comparison.control);
  if (!comparison.anova) return 'One unit each: numbers, no winner.';
  const { better, worse } = againstControl(finding);
  const total = comparison.versusControl.length;
  const names = (list: readonly { name: string }[]) => listNames(list.map((v) => nameOf(v.name)));

  if (better.length === 0) {
    if (worse.length > 0) {
      return `${sentenceCase(names(worse))} did worse than ${control}; nothing did better.`;
    }
    const alike = comparison.versusControl.every(
      (v) => pairOf(finding, v.name, comparison.control)?.verdict === 'alike',
    );
    if (alike) {
      return total === 1
        ? `${names(comparison.versusControl)} made no difference that matters.`
        : `${total === 2 ? 'Neither of the two' : `None of the ${countWord(total)}`} contenders made a difference that matters.`;
    }
    if (total === 1) return `${names(comparison.versusControl)} against ${control}: too close to call.`;
    const open = comparison.versusControl.every(
      (v) => pairOf(finding, v.name, comparison.control)?.verdict === 'tooClose',
    );
    if (open) return `Too close to call: the spread is wider than any difference from ${control}.`;
    const none = total === 2 ? 'Neither of the two' : `None of the ${countWord(total)}`;
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
    const winners = better.map((b) => b.name);
    if (inseparable(finding, winners)) {
      return winners.length === 2
        ? '; nothing separates the two'
        : `; nothing separates the ${countWord(winners.length)}`;
    }
    return `; ${listNames(top.map(nameOf))} share the lead`;
  };
  return `${head}${tail()}.`;
}

/** Size of the change in per cent; in raw units where the control is near zero. */
function change(v: Comparison['versusControl'][number], finding: Finding): string {
  const { decimals, unit, direction } = finding.trait;
  // A distance outside a band in per cent of another distance would say nothing.
  return direction !== 'band' && v.percent !== null && v.percentLow !== null
    ? `${formatFigure(Math.abs(v.percent), 0)} %`
    : `${formatFigure(Math.abs(v.difference), decimals)} ${unit}`.trim();
}

/** The notes beside the chart: who beat the control, who didn't, what is too close to call. */
export function notes(finding: Finding, nameOf: NameOf, unitNoun: string): Note[] {
  const { comparison, smallestDifference: d, trait } = finding;
  const control = nameOf(comparison.control);
  const out: Note[] = [];
  if (!comparison.anova) {
    return [
      {
        tone: 'open',
        title: 'One unit each: numbers, no winner.',
        text: `A difference between two single ${plural(unitNoun)} may be the ${unitNoun}, the place or the product. Two or more ${plural(unitNoun)} of each would tell.`,
      },
    ];
  }
  const { better, worse, open } = againstControl(finding);
  const list = (vs: Comparison['versusControl']) => listNames(vs.map((v) => nameOf(v.name)));
  const changes = (vs: Comparison['versusControl']) => listNames(vs.map((v) => change(v, finding)));
  const dText = d === null ? '' : `${formatFigure(d, trait.decimals)} ${trait.unit}`.trim();
  if (better.length > 0) {
    const low = Math.min(...better.map((v) => Math.min(Math.abs(v.low!), Math.abs(v.high!))));
    const matters =
      d === null
        ? ''
        : low >= d
          ? `, even at the low end more than the ${dText} that matters`
          : `; at the low end less than the ${dText} that matters`;
    out.push({
      tone: 'good',
      title: `${list(better)} beat ${control}.`,
      text: `By ${changes(better)}${matters}.`,
    });
  }
  if (worse.length > 0) {
    out.push({
      tone: 'bad',
      title: `${list(worse)} did worse than ${control}.`,
      text: `By ${changes(worse)}.`,
    });
  }
  const alike = open.filter((v) => pairOf(finding, v.name, comparison.control)?.verdict === 'alike');
  const unclear = open.filter((v) => !alike.includes(v));
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
      text: `${unclear
        .map(
          (v) =>
            `${nameOf(v.name)} ${formatSigned(v.low!, trait.decimals)} to ${formatSigned(v.high!, trait.decimals)}`,
        )
        .join('; ')} ${trait.unit}. The interval holds zero.`,
    });
  }
  const top = better.map((v) => v.name).filter((n) => leaders(finding).includes(n));
  if (top.length > 1) out.push(betweenLeaders(finding, top, nameOf, unitNoun, dText));
  return out;
}

function betweenLeaders(
  finding: Finding,
  top: string[],
  nameOf: NameOf,
  unitNoun: string,
  dText: string,
): Note {
  const { comparison, trait, replicatesToSee } = finding;
  const pair = comparison.pairs.find((p) => top.includes(p.a) && top.includes(p.b))!;
  const half = (pair.high! - pair.low!) / 2;
  const n = Math.min(...comparison.treatments.map((t) => t.n));
  const outcome = pairOf(finding, pair.a, pair.b);
  const names = listNames(top.map(nameOf));
  if (top.length === 2 && outcome?.verdict === 'alike') {
    return {
      tone: 'plain',
      title: `${names}: no difference that matters.`,
      text: `What lies between them is smaller than ${dText}.`,
    };
  }
  return {
    tone: 'open',
    title: `Between ${names}: too close to call.`,
    text:
      `±${formatFigure(half, trait.decimals)} ${trait.unit} between two of them is what ${n} ${plural(unitNoun)} each can see` +
      (replicatesToSee && dText ? `; about ${replicatesToSee} each would see ±${dText}.` : '.'),
  };
}

/** What the figures of a finding are: the trait with its unit, or for a wanted band the distance outside it. */
export function measureLabel(finding: Finding): string {
  const { name, unit, direction, bandLow, bandHigh } = finding.trait;
  if (direction === 'band') return `${name}: ${unit} outside ${bandLow}–${bandHigh}`.replace(/ {2,}/g, ' ');
  return unit ? `${name}, ${unit}` : name;
}

/** The small print: what was done, by its statistical name. */
export function methodText(finding: Finding, unitNoun: string): string {
  const { comparison, trait, leftOut } = finding;
  const n = finding.units.length;
  const level = `${Math.round((1 - comparison.alpha) * 100)} %`;
  const parts = [
    comparison.columns > 1
      ? `Linear model on ${n} ${unitNoun} values, ${comparison.blocks} rows and ${comparison.columns} columns of the square taken off first; means are adjusted for both.`
      : comparison.blocks > 1
        ? `Linear model on ${n} ${unitNoun} values, ${comparison.blocks} blocks taken off first; means are adjusted for blocks.`
        : `Linear model on ${n} ${unitNoun} values.`,
  ];
  if (trait.direction === 'band') {
    parts.push(
      `Analysed: distance outside the wanted band of ${trait.bandLow}–${trait.bandHigh} ${trait.unit}; 0 is inside, less is better.`,
    );
  }
  const a = comparison.anova;
  if (a) {
    const f =
      a.f === null ? 'no residual spread' : `F(${a.dfTreatment}, ${a.dfResidual}) = ${a.f.toPrecision(3)}`;
    parts.push(
      `${f}, p ${a.p < 0.001 ? '< 0.001' : `= ${a.p.toFixed(3)}`}. Against the control: Dunnett (two-sided, ${level} for all together). Between all: Tukey–Kramer; letters from the same. Per cent: Fieller, ${level} each.`,
      `Assumes units independent of each other, alike in spread, roughly normal.`,
    );
  }
  if (comparison.dunnettMethod === 'lattice')
    parts.push('Missing cells: Dunnett’s value by a lattice rule, good to about 0.0002.');
  if (leftOut.length > 0) {
    parts.push(`Left out: ${leftOut.map((u) => `${u.code} (${u.reason})`).join(', ')}.`);
  }
  return parts.join(' ');
}
