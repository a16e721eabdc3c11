import { plural } from '../quantity/format';
import type { Finding } from './finding';

/** What the figures of a finding are: the trait with its unit, or for a wanted band the distance outside it. */
export function measureLabel({ trait }: Pick<Finding, 'trait'>): string {
  const { name, unit, direction, bandLow, bandHigh } = trait;
  if (direction === 'band') return `${name}: ${unit} outside ${bandLow}–${bandHigh}`.replace(/ {2,}/g, ' ');
  return unit ? `${name}, ${unit}` : name;
}

/** Which values a finding rests on. @example 'Pick 1 and Pick 2 added.' */
export function basisText({ basis, trait }: Finding): string {
  const names = basis.rounds.map((r) => `${r.name} (day ${r.day})`);
  if (names.length === 0) return '';
  return trait.summary === 'sum' && names.length > 1
    ? `Added up: ${names.join(', ')}.`
    : `Taken at: ${names.join(', ')}.`;
}

/** By what results were divided, where they are per plant or per m². */
function dividedText({ trait, units }: Finding, unitNoun: string): string {
  if (trait.per === undefined) return '';
  const divisors = units.map((u) => u.divisor ?? 1);
  const [least, most] = [Math.min(...divisors), Math.max(...divisors)];
  const figures = [...new Set([least, most].map((d) => Number(d.toPrecision(3)).toString()))].join('–');
  return trait.per === 'area'
    ? `Divided by the ground of each ${unitNoun}, ${figures} m².`
    : `Divided by the plants in each ${unitNoun}, ${figures}.`;
}

/** The small print: what was done, by its statistical name. */
export function methodText(finding: Finding, unitNoun: string): string {
  const { analysis, trait, leftOut } = finding;
  const parts = [
    `One value for each of ${finding.units.length} ${plural(unitNoun)}.`,
    basisText(finding),
    dividedText(finding, unitNoun),
    analysis.smallPrint,
  ];
  if (trait.direction === 'band') {
    parts.push(
      `Analysed: distance outside the wanted band of ${trait.bandLow}–${trait.bandHigh} ${trait.unit}; 0 is inside, less is better.`,
    );
  }
  if (analysis.spread === 'shown') {
    parts.push(
      `Assumes ${analysis.assumptions
        .filter((a) => a.what !== 'enough units')
        .map((a) => a.what)
        .join(', ')}.`,
    );
  }
  if (leftOut.length > 0) {
    parts.push(`Left out: ${leftOut.map((u) => `${u.code} (${u.reason})`).join(', ')}.`);
  }
  return parts.filter(Boolean).join(' ');
}
