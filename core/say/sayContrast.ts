import type { NameOf } from '../model/nameOf';
import type { Contrast, Scale } from '../analysis/contrast';
import { kindOf } from '../model/traitKinds';
import { moreIsBetter } from '../analysis/goodness';
import type { PairOutcome } from '../account/rank';
import { formatFigure, formatSigned, listNames, plural } from '../quantity/format';
import type { Finding } from '../account/finding';
import { soleControl, whyNot } from '../account/outcomes';

/**
 * Decimals a finding's means and differences are shown with: a mean of whole numbers has one more, and distances
 * outside a band are small.
 */
export const decimalsOfFinding = ({ trait }: Pick<Finding, 'trait'>): number =>
  Math.max(1, trait.decimals + (trait.direction === 'band' ? 1 : 0));

/** What a difference of a trait is counted in: of shares of n it is points, which are no per cent of a per cent. */
export const differenceUnit = ({ trait }: Pick<Finding, 'trait'>): string =>
  kindOf(trait).observes === 'kOfN' ? 'points' : trait.unit;

const unitOf = (finding: Pick<Finding, 'trait'>): string => {
  const unit = differenceUnit(finding);
  return unit ? ` ${unit}` : '';
};

/** Shares of pairs as a person counts them: of ten, whichever direction is better. */
const ofTen = (share: number, finding: Pick<Finding, 'trait'>): number =>
  10 * (moreIsBetter(finding.trait) ? share : 1 - share);

/** A share of pairs, as how many of ten the first is better in. @example sayOfTen(0.72, finding) // '7.2' */
const sayOfTen = (share: number, finding: Pick<Finding, 'trait'>): string =>
  formatFigure(ofTen(share, finding), 1).replace(/\.0$/, '');

/** The estimate, with its sign. @example sayEstimate(c, finding) // '+5.2 g' */
export function sayEstimate(c: Contrast, finding: Finding): string {
  if (c.scale === 'superiority') return `ahead in ${sayOfTen(c.estimate, finding)} of ten pairs`;
  if (c.scale === 'ratio')
    return Number.isFinite(c.estimate) ? `${formatSigned(100 * (c.estimate - 1), 0)} %` : 'from none';
  return `${formatSigned(c.estimate, decimalsOfFinding(finding))}${unitOf(finding)}`;
}

/** The interval, with its signs; empty where nothing could be tested. @example '−1.2 to +6.0 g' */
export function sayInterval(c: Contrast, finding: Finding): string {
  if (c.low === null || c.high === null) return '';
  if (c.scale === 'superiority') {
    const [from, to] = [c.low, c.high].map((x) => sayOfTen(x, finding)).sort((x, y) => Number(x) - Number(y));
    return `ahead in ${from} to ${to} of ten pairs`;
  }
  if (c.scale === 'ratio' && !Number.isFinite(c.high))
    return `${formatSigned(100 * (c.low - 1), 0)} % at least, no upper end`;
  if (c.scale === 'ratio')
    return `${formatSigned(100 * (c.low - 1), 0)} to ${formatSigned(100 * (c.high - 1), 0)} %`;
  return `${formatSigned(c.low, decimalsOfFinding(finding))} to ${formatSigned(c.high, decimalsOfFinding(finding))}${unitOf(finding)}`;
}

/**
 * Size of the change behind “by”, in per cent where that means something.
 * @example saySize(c, finding) // '12 %'; for scores '8 of ten pairs'
 */
export function saySize(c: Contrast, finding: Finding): string {
  if (c.scale === 'superiority') {
    const n = ofTen(c.estimate, finding);
    return `${formatFigure(Math.max(n, 10 - n), 1).replace(/\.0$/, '')} of ten pairs`;
  }
  if (c.scale === 'ratio' && !Number.isFinite(c.estimate))
    return `${formatFigure(100 * (c.low! - 1), 0)} % at least, no upper end`;
  return c.percent !== null && c.percent.low !== null
    ? `${formatFigure(Math.abs(c.percent.estimate), 0)} %`
    : `${formatFigure(Math.abs(c.estimate), decimalsOfFinding(finding))}${unitOf(finding)}`;
}

/** How far from no effect the interval's nearer end lies, in the trait's unit; the interval must be clear of it. */
export function nearEnd(c: Contrast, { analysis }: Pick<Finding, 'analysis'>): number {
  if (c.units) return c.units.low > 0 ? c.units.low : Math.max(0, -c.units.high);
  if (c.scale !== 'ratio') return Math.min(Math.abs(c.low!), Math.abs(c.high!));
  const base = analysis.summaries.find((s) => s.name === c.b)!.estimate;
  return base * Math.min(Math.abs(c.low! - 1), Math.abs(c.high! - 1));
}

/** What contenders are held against, in words. @example sayControl(finding, nameOf) // 'Water' */
export function sayControl(finding: Finding, nameOf: NameOf): string {
  const sole = soleControl(finding);
  return sole === null ? 'its own control' : nameOf(sole);
}

/** Why nothing could be tested between two. @example sayWhyNot(finding, 'a', 'b', 'tray') // 'all their trays read the same' */
export const sayWhyNot = (finding: Finding, a: string, b: string, unitNoun: string): string =>
  ({
    single: `one ${unitNoun} alone of one of the two`,
    alike: `all their ${plural(unitNoun)} read the same`,
    few: `too few ${plural(unitNoun)} for this test`,
  })[whyNot(finding, a, b)];

/** An open pair in a sentence. @example 'A against B: −1.2 to +6.0 g' */
export const sayPair = (c: Contrast, finding: Finding, nameOf: NameOf): string =>
  `${nameOf(c.a)} against ${nameOf(c.b)}: ${sayInterval(c, finding)}`;

/** What “no effect” is called on a scale. @example sayNone('ratio') // '0 %' */
export const sayNone = (scale: Scale): string =>
  ({ difference: 'zero', median: 'zero', ratio: '0 %', odds: 'even odds', superiority: 'five of ten' })[
    scale
  ];

/**
 * What isn't shown of the size of what is told apart, to stand behind it; empty where all of it matters, or no difference
 * that matters was set.
 * @example sayReservation(finding, outcomes, nameOf) // '; whether by as much as matters can’t be told'
 */
export function sayReservation(
  { smallestDifference, analysis }: Finding,
  outcomes: readonly PairOutcome[],
  nameOf: NameOf,
): string {
  const told = outcomes.filter((o) => o.verdict === 'better');
  if (smallestDifference === null || analysis.pairs[0]?.scale === 'superiority') return '';
  const enough = told.filter((o) => o.matters);
  if (told.length === 0 || enough.length === told.length) return '';
  if (told.every((o) => o.tooSmall)) return '; by less than matters';
  // One over several: whom by how much is said of the pairs.
  if (enough.length > 0 && new Set(told.map((o) => o.ahead)).size === 1)
    return '; not over all of them by as much as matters';
  return enough.length === 0
    ? '; whether by as much as matters can’t be told'
    : `; only ${listNames([...new Set(enough.map((o) => nameOf(o.ahead!)))])} by as much as matters`;
}
