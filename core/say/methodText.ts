import { countOf, formatSignificant } from '../quantity/format';
import type { Finding } from '../account/finding';

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
  if (names.length > 1 && trait.summary === 'area')
    return `Mean over time, area under each unit’s curve over its days: ${names.join(', ')}.`;
  if (names.length > 1 && trait.summary === 'gain')
    return `How much each grew: ${names.at(-1)} less ${names[0]}.`;
  if (names.length > 1 && trait.summary === 'growth')
    return `Relative growth rate, least-squares slope of the logarithm on days: ${names.join(', ')}.`;
  return trait.summary === 'sum' && names.length > 1
    ? `Added up: ${names.join(', ')}.`
    : `Taken at: ${names.join(', ')}.`;
}

const dividedBy: Record<NonNullable<Finding['trait']['per']>, (unitNoun: string) => string> = {
  plant: (noun) => `the plants in each ${noun}`,
  area: (noun) => `the ground of each ${noun}`,
  water: (noun) => `the water that went into each ${noun} by the log`,
  energy: (noun) => `what the lamp over each ${noun} used until that day`,
  light: (noun) => `the light on the ground of each ${noun} until that day`,
  nitrogen: (noun) => `the nitrogen each ${noun} got, by plan and dose changes`,
  day: () => 'the days since the start',
};
const divisorUnit: Record<NonNullable<Finding['trait']['per']>, string> = {
  plant: '',
  area: ' m²',
  water: ' L',
  energy: ' kWh',
  light: ' mol',
  nitrogen: ' g',
  day: ' days',
};

/** By what results were divided. */
function dividedText({ trait, units }: Finding, unitNoun: string): string {
  if (trait.per === undefined) return '';
  const divisors = units.map((u) => u.divisor ?? 1);
  const [least, most] = [Math.min(...divisors), Math.max(...divisors)];
  const figures = [...new Set([least, most].map((d) => formatSignificant(d, 3)))].join('–');
  return `Divided by ${dividedBy[trait.per](unitNoun)}, ${figures}${divisorUnit[trait.per]}.`;
}

/** The small print: what was done, by its statistical name. */
export function methodText(finding: Finding, unitNoun: string): string {
  const { analysis, trait, leftOut } = finding;
  const parts = [
    `One value for each of ${countOf(finding.units.length, unitNoun)}.`,
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
