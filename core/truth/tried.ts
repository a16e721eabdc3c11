import { type Finding, makeFinding } from '../account/finding';
import { heldOf } from '../account/outcomes';
import { moreIsBetter } from '../analysis/goodness';
import type { FindingRow } from '../analysis/rows';
import type { Plan } from '../model/plan';
import { headline } from '../say/words';
import { kindOf } from '../model/traitKinds';
import { seededRandom } from '../stats/random';
import { type MadeUp, armsOf, inputOf, rowsOf } from './madeUp';

/** What one made-up trial's finding said, held against what is true. */
export interface Said {
  /** one is told from the control that isn't different, or on the wrong side of it */
  beat: boolean;
  /** any two are told apart that aren't different, or the wrong way round */
  pair: boolean;
  /** one alone leads that isn't alone the best */
  winner: boolean;
  /** nothing could be tested */
  untested: boolean;
  /** what is truly farthest ahead of the control (of equals: of the others) is told from it */
  found: boolean;
}

/** How good each contender truly is, the sign turned where less is better. */
export function goodness(m: MadeUp): number[] {
  const sign = moreIsBetter(m.trait) ? 1 : -1;
  // Ranks are given to the highest level first: the first place is 1.
  return m.levels.map((l) => (kindOf(m.trait).observes === 'rank' ? l : sign * l));
}

/** Holds a finding against the truth it was made from. */
export function heldAgainstTruth(finding: Finding, m: MadeUp): Said {
  const good = goodness(m);
  const of = new Map(armsOf(m).map((id, i) => [id, good[i]!]));
  const wrong = (o: { a: string; b: string; verdict: string; ahead: string | null }) =>
    o.verdict === 'better' && of.get(o.ahead!)! <= of.get(o.ahead === o.a ? o.b : o.a)!;
  const held = heldOf(finding).map((h) => h.outcome);
  // Who is said to lead alone, not who is left when nobody else could be tested.
  const top = [
    ...new Set(headline(finding, (id) => id).facts.flatMap((f) => (f.is === 'leads' ? [f.a] : []))),
  ];
  const best = Math.max(...good);
  const sole = good.filter((g) => g === best).length === 1;
  const champion = armsOf(m)[good.indexOf(best)]!;
  const rest = (m.peers ? finding.outcomes : held).filter((o) => o.a === champion || o.b === champion);
  return {
    beat: held.some(wrong),
    pair: finding.outcomes.some(wrong),
    winner: top.length === 1 && !(sole && top[0] === champion),
    untested: finding.outcomes.every((o) => o.verdict === 'untested'),
    found: rest.some((o) => o.verdict === 'better' && o.ahead === champion),
  };
}

/** Shares of runs, 0 … 1. */
export type Shares = Record<keyof Said, number>;

/**
 * What findings say of a trial whose truth is known, over many runs of chance, by the same functions that work out
 * findings of real ones.
 *
 * @returns shares of runs; one of which nothing can be worked out counts as untested
 * @example tryOut(sixTraysOfTen, { runs: 400, seed: 3 }).found // 0.85
 */
export function tryOut(
  m: MadeUp,
  {
    runs,
    seed,
    smallestDifference = null,
    each,
  }: {
    runs: number;
    seed: number;
    smallestDifference?: Plan['smallestDifference'];
    /** sees every finding that could be made, and its rows */
    each?: (finding: Finding, rows: FindingRow[]) => void;
  },
): Shares {
  const random = seededRandom(seed);
  const counted: Shares = { beat: 0, pair: 0, winner: 0, untested: 0, found: 0 };
  for (let run = 0; run < runs; run++) {
    const rows = rowsOf(m, random);
    const made = makeFinding(inputOf(m, rows, smallestDifference));
    const judged = made.ok ? heldAgainstTruth(made.value, m) : null;
    if (made.ok) each?.(made.value, rows);
    for (const key of Object.keys(counted) as (keyof Said)[])
      if (judged ? judged[key] : key === 'untested') counted[key] += 1;
  }
  for (const key of Object.keys(counted) as (keyof Said)[]) counted[key] /= runs;
  return counted;
}
