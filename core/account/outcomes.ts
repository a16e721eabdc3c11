import type { Contrast } from '../analysis/contrast';
import type { Finding } from './finding';
import type { PairOutcome } from './rank';

/** The finding sorted into what each treatment did against the control. */
export function againstControl(finding: Finding): {
  better: Contrast[];
  worse: Contrast[];
  open: Contrast[];
} {
  const { versusControl, control } = finding.analysis;
  const of = (c: Contrast) => outcomeOf(finding, c.a, control);
  return {
    better: versusControl.filter((c) => of(c)?.verdict === 'better' && of(c)?.ahead === c.a),
    worse: versusControl.filter((c) => of(c)?.verdict === 'better' && of(c)?.ahead !== c.a),
    open: versusControl.filter((c) => of(c)?.verdict !== 'better'),
  };
}

/** What the contrast of two treatments says, whichever way round they are named. */
export const outcomeOf = (finding: Finding, a: string, b: string): PairOutcome | undefined =>
  finding.outcomes.find((p) => (p.a === a && p.b === b) || (p.a === b && p.b === a));

/** Treatments that nothing is clearly better than. */
export const leaders = (finding: Finding): string[] =>
  finding.ranking.filter((r) => r.rank === 1).map((r) => r.name);

/** Whether nothing separates these treatments from each other. */
export function inseparable(finding: Finding, names: readonly string[]): boolean {
  return names.every((a, i) =>
    names.slice(i + 1).every((b) => outcomeOf(finding, a, b)?.verdict !== 'better'),
  );
}

/** Whether values that are still wanted may change the finding: of later rounds, or of units not measured yet. */
export const isSoFar = ({ basis, roundId, leftOut }: Finding): boolean =>
  roundId === null &&
  (basis.open.length > 0 || basis.toCome > 0 || leftOut.some((u) => u.why === 'notMeasured'));
