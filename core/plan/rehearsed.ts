import { formatCount, formatSignificant } from '../quantity/format';

/** A share as people say it. @example inAHundred(0.834) // '83 of 100 runs' */
export const inAHundred = (share: number): string => `${Math.round(share * 100)} of 100 runs`;

/** Whether a plan can carry its question. */
const carries = (share: number): string =>
  share >= 0.8
    ? 'the plan can carry the question'
    : share >= 0.5
      ? 'likely, but not safe'
      : 'more likely than not nothing will be told apart';

/** What of a rehearsal is kept. */
interface Rehearsed {
  runs: number;
  cvPercent: number;
  hasPrediction: boolean;
  asksAsGood: boolean;
  right: number;
  sees: string | null;
}

/** What a rehearsal found, in a sentence. */
export function rehearsalHeadline({
  right,
  asksAsGood,
  hasPrediction,
}: Pick<Rehearsed, 'right' | 'asksAsGood' | 'hasPrediction'>): string {
  if (asksAsGood)
    return `If one is exactly as good as what it is held against, that is shown in ${inAHundred(right)}: ${carries(right)}.`;
  const when = hasPrediction ? 'If things go as predicted' : 'If one product differs by what matters';
  return `${when}, the right winner is named in ${inAHundred(right)}: ${carries(right)}.`;
}

/** A kept rehearsal: what it was run with and what it found. */
export const sayRehearsed = (r: Rehearsed): string =>
  `${formatCount(r.runs)} runs at a spread of ${formatSignificant(r.cvPercent, 3)} %: ${r.sees ?? rehearsalHeadline(r)}`;
