import { inAHundred } from '../plan/rehearsed';
import type { RehearsalResult } from './rehearsal';

/** Share of runs in which what is true was found, and whether being as good was what was asked. */
export const rightOf = ({ asGood, predicted }: RehearsalResult) => ({
  right: asGood ?? predicted.plan.right,
  asksAsGood: asGood !== null,
});

/** The remarks under the headline, one a line. */
export function rehearsalRemarks(r: RehearsalResult): string[] {
  const out = [
    `When nothing differs, a difference is still seen in ${inAHundred(r.nothing.plan.falseWinner)}; 5 are what chance is allowed.`,
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
