import type { Finding } from '../account/finding';
import { methodOf } from '../analysis/methods';
import { type FindingShown, kindOfPicture, shadeOf } from '../picture/findingPicture';

/** How sure an interval of a finding is. @example '95 %' */
export const level = (finding: Finding) => `${Math.round((1 - finding.analysis.alpha) * 100)} %`;

/** What the figure of a contender is. @example 'median' */
export const figureName = ({ analysis }: Finding): string => methodOf(analysis.method)?.figure ?? 'mean';

/** What a finding's picture shows, in words, by its kind. */
export function pictureCaption(shown: Pick<FindingShown, 'finding' | 'unitNoun' | 'unmarked'>): string {
  const { finding, unitNoun } = shown;
  switch (kindOfPicture(finding)) {
    case 'dots':
      return `Each group of dots is a ${unitNoun}, filled where it did; the line is the pooled share and its ${level(finding)} interval.`;
    case 'steps':
      return `A step is a ${unitNoun} that was seen to have it; a stroke across is one without it when last looked at.`;
    case 'tiles': {
      const { trait, analysis } = finding;
      const tile = `Each tile is a ${unitNoun}`;
      const shade = shadeOf(shown);
      if (shade?.what === 'band')
        return `${tile}. Shaded: the wanted band of ${trait.bandLow}–${trait.bandHigh} ${trait.unit}.`;
      const small = shade === null ? '' : ' Shaded: differences from the control too small to matter.';
      return analysis.summaries.some((s) => s.low !== null)
        ? `${tile}; the line is the ${figureName(finding)} and its ${level(finding)} interval.${small}`
        : `${tile}; the bar marks the ${figureName(finding)}.${small}`;
    }
  }
}
