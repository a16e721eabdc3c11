import type { RehearsalResult } from './rehearsal';

/** A share as people say it. @example inAHundred(0.834) // '83 of 100 runs' */
export const inAHundred = (share: number): string => `${Math.round(share * 100)} of 100 runs`;

/** Whether a plan can carry its question. */
const carries = (share: number): string =>
  share >= 0.8
    ? 'the plan can carry the question'
    : share >= 0.5
      ? 'likely, but not safe'
      : 'more likely than not nothing will be told apart';

/** What a rehearsal says, in a sentence. */
export function rehearsalHeadline(r: RehearsalResult, hasPrediction: boolean): string {
  const right = r.asGood ?? r.predicted.plan.right;
  if (r.asGood !== null)
    return `If one is exactly as good as what it is held against, that is shown in ${inAHundred(right)}: ${carries(right)}.`;
  const when = hasPrediction ? 'If things go as predicted' : 'If one product differs by what matters';
  return `${when}, the right winner is named in ${inAHundred(right)}: ${carries(right)}.`;
}

/** The remarks under the headline, one a line. */
export function rehearsalRemarks(r: RehearsalResult): string[] {
  const out = [
    `When nothing differs, something is still told from the control in ${inAHundred(r.nothing.plan.falseWinner)}; 5 are what chance is allowed.`,
  ];
  const { plantsAsUnits, withoutBlocks, withoutControl } = r.nothing;
  if (r.nothing.plan.falseWinner > 0.09) {
    out.push(
      'That is more than chance is allowed: the layout itself favours someone. Balance it, or rotate.',
    );
  }
  if (plantsAsUnits) {
    out.push(
      `Counting plants as units would crown a winner that isn’t one in ${inAHundred(plantsAsUnits.falseWinner)}.`,
    );
  }
  if (withoutBlocks && r.predicted.withoutBlocks) {
    out.push(
      `Without blocks the right winner would be named in ${inAHundred(r.predicted.withoutBlocks.right)}.`,
    );
  }
  if (withoutControl && r.predicted.withoutControl && r.predicted.withoutControl.falseWinner >= 0.01) {
    out.push(
      `Without the control a product would be crowned wrongly in ${inAHundred(r.predicted.withoutControl.falseWinner)}, and nobody would see that it did no better than nothing.`,
    );
  }
  if (r.lostRuns > 0) {
    out.push(`${r.lostRuns} runs lost so many units that nothing could be compared.`);
  }
  return out;
}
