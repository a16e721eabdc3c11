import { type Contrast, turned } from '../analysis/contrast';
import type { Finding } from './finding';
import type { PairOutcome } from './rank';

/** The contrast of two contenders, the first against the second, whichever way round it was worked out. */
export function contrastOf(
  { analysis: { pairs, versusControl } }: Pick<Finding, 'analysis'>,
  a: string,
  b: string,
): Contrast | undefined {
  // Against the control a contrast has its per cent, which is lost when it is turned.
  const own = [...versusControl, ...pairs].find((p) => p.a === a && p.b === b);
  const other = own ? undefined : pairs.find((p) => p.a === b && p.b === a);
  return other ? turned(other) : own;
}

/** What the contrast of two treatments says, whichever way round they are named; undefined where it isn't asked. */
export const outcomeOf = (
  finding: Pick<Finding, 'outcomes'>,
  a: string,
  b: string,
): PairOutcome | undefined =>
  finding.outcomes.find((p) => (p.a === a && p.b === b) || (p.a === b && p.b === a));

/** A contender held against its control: the contrast is always the contender's. */
export interface Held {
  id: string;
  control: string;
  contrast: Contrast;
  outcome: PairOutcome;
}

/** Every contender held against its own control, where both have figures; none among equals. */
export function heldOf(finding: Finding): Held[] {
  if (finding.peers) return [];
  return finding.against.flatMap(({ id, control }): Held[] => {
    const contrast = contrastOf(finding, id, control);
    const outcome = outcomeOf(finding, id, control);
    return contrast && outcome ? [{ id, control, contrast, outcome }] : [];
  });
}

/** What a contender is held against; undefined for a control, among equals, or where one of the two has no figure. */
export const heldWith = (finding: Finding, id: string): Held | undefined =>
  heldOf(finding).find((h) => h.id === id);

/** The one control all are held against; null among equals, where it is lost, and where there are several. */
export function soleControl(finding: Finding): string | null {
  const controls = new Set(finding.peers ? [] : finding.against.map((o) => o.control));
  return controls.size === 1 ? [...controls][0]! : null;
}

/** Contenders held against their controls, sorted by what became of it. */
export interface AgainstControl {
  better: Held[];
  worse: Held[];
  /** tested and not told apart, alike included */
  open: Held[];
  /** nothing could be tested */
  untested: Held[];
}

/** The finding sorted into what each contender did against its control. */
export function againstControl(finding: Finding): AgainstControl {
  const held = heldOf(finding);
  const apart = (h: Held) => h.outcome.verdict === 'better';
  return {
    better: held.filter((h) => apart(h) && h.outcome.ahead === h.id),
    worse: held.filter((h) => apart(h) && h.outcome.ahead !== h.id),
    open: held.filter((h) => !apart(h) && h.outcome.verdict !== 'untested'),
    untested: held.filter((h) => h.outcome.verdict === 'untested'),
  };
}

/** Why nothing could be tested between two: one unit alone, all alike, or too few. */
export function whyNot(
  finding: Pick<Finding, 'analysis' | 'units'>,
  a: string,
  b: string,
): 'single' | 'alike' | 'few' {
  const { summaries } = finding.analysis;
  if (summaries.some((s) => (s.name === a || s.name === b) && s.n === 1)) return 'single';
  const values = finding.units.flatMap((u) => (u.treatmentId === a || u.treatmentId === b ? [u.value] : []));
  return new Set(values).size === 1 ? 'alike' : 'few';
}

/**
 * Treatments that nothing is clearly better than, where they could be tested; nobody where one that couldn't be tested
 * against some may be ahead of them all.
 */
export function leaders({ ranking, outcomes, analysis }: Finding): string[] {
  const first = ranking.filter((r) => r.rank === 1).map((r) => r.name);
  const behind = (id: string) =>
    outcomes.some((o) => (o.a === id || o.b === id) && o.verdict === 'better' && o.ahead !== id);
  const single = (id: string) => analysis.summaries.some((s) => s.name === id && s.n === 1);
  const open = ranking.some((r) => r.rank === null && !single(r.name) && !behind(r.name));
  return open ? [] : first;
}

/** Those that every other is shown to be behind: one, or nobody. */
export const aheadOfAll = ({ outcomes }: Pick<Finding, 'outcomes'>): string[] =>
  [...new Set(outcomes.flatMap((o) => (o.ahead === null ? [] : [o.ahead])))].filter((id) =>
    outcomes.every((o) => (o.a !== id && o.b !== id) || (o.verdict === 'better' && o.ahead === id)),
  );

/** Whether every two of these were tested and nothing separates them. */
export function inseparable(finding: Finding, names: readonly string[]): boolean {
  return names.every((a, i) =>
    names.slice(i + 1).every((b) => {
      const verdict = outcomeOf(finding, a, b)?.verdict;
      return verdict !== undefined && verdict !== 'better' && verdict !== 'untested';
    }),
  );
}

/** Whether values that are still wanted may change the finding: of later rounds, or of units not measured yet. */
export const isSoFar = ({ basis, roundId, leftOut }: Finding): boolean =>
  roundId === null &&
  !basis.over &&
  (basis.open.length > 0 || basis.toCome > 0 || leftOut.some((u) => u.why === 'notMeasured'));
