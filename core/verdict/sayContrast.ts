import type { Contrast } from '../analysis/contrast';
import { formatFigure, formatSigned } from '../quantity/format';
import type { Finding } from './finding';

/** What treatments are called: their names, or codes while the trial is blind. */
export type NameOf = (treatmentId: string) => string;

/**
 * Decimals a finding's means and differences are shown with: a mean of whole numbers has one more, and distances
 * outside a band are small.
 */
export const decimalsOfFinding = ({ trait }: Pick<Finding, 'trait'>): number =>
  Math.max(1, trait.decimals + (trait.direction === 'band' ? 1 : 0));

const unitOf = ({ trait }: Pick<Finding, 'trait'>): string => (trait.unit ? ` ${trait.unit}` : '');

/** The estimate, with its sign. @example sayEstimate(c, finding) // '+5.2 g' */
export const sayEstimate = (c: Contrast, finding: Finding): string =>
  `${formatSigned(c.estimate, decimalsOfFinding(finding))}${unitOf(finding)}`;

/** The interval, with its signs; empty where nothing could be tested. @example '−1.2 to +6.0 g' */
export const sayInterval = (c: Contrast, finding: Finding): string =>
  c.low === null || c.high === null
    ? ''
    : `${formatSigned(c.low, decimalsOfFinding(finding))} to ${formatSigned(c.high, decimalsOfFinding(finding))}${unitOf(finding)}`;

/** Size of the change, in per cent where that means something. @example saySize(c, finding) // '12 %' */
export function saySize(c: Contrast, finding: Finding): string {
  return c.percent !== null && c.percent.low !== null
    ? `${formatFigure(Math.abs(c.percent.estimate), 0)} %`
    : `${formatFigure(Math.abs(c.estimate), decimalsOfFinding(finding))}${unitOf(finding)}`;
}

/** How far from no effect the interval's nearer end lies; the interval must be clear of it. */
export const nearEnd = (c: Contrast): number => Math.min(Math.abs(c.low!), Math.abs(c.high!));

/** An open pair in a sentence. @example 'A against B: −1.2 to +6.0 g' */
export const sayPair = (c: Contrast, finding: Finding, nameOf: NameOf): string =>
  `${nameOf(c.a)} against ${nameOf(c.b)}: ${sayInterval(c, finding)}`;
