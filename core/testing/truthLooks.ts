import { makeFinding } from '../account/finding';
import { seededRandom } from '../stats/random';
import { type MadeUp, armsOf, inputOf, rowsOf } from '../truth/madeUp';
import { factorialFindings } from '../looks/factorialFinding';
import { secondLooks } from '../looks/secondLooks';
import { kindsOfTruth } from './truthGrid';

/** Shares of trials in which nothing differs and something is said beside the finding. */
export interface FalseLooks {
  /** contenders are said to differ in evenness */
  uneven: number;
  /** a value is said to lie far from what its contender lets one expect */
  outlier: number;
  /** a factor, or how two work together, is said to make a difference (two factors of two levels) */
  factors: number;
}

/** How often second looks and factors find something where nothing is, four contenders of five units each. */
export function falseLooks({ runs, seed }: { runs: number; seed: number }): FalseLooks {
  const kind = kindsOfTruth[0]!;
  const m: MadeUp = {
    ...{
      trait: kind.trait,
      design: 'random',
      units: [5, 5, 5, 5],
      levels: [50, 50, 50, 50],
      scatter: kind.scatter,
    },
  };
  const random = seededRandom(seed);
  const counted: FalseLooks = { uneven: 0, outlier: 0, factors: 0 };
  const arms = armsOf(m);
  const levels = Object.fromEntries(
    arms.map((id, i) => [id, [i % 2 === 0 ? 'no' : 'yes', i < 2 ? 'low' : 'high']]),
  );
  for (let run = 0; run < runs; run++) {
    const input = { ...inputOf(m, rowsOf(m, random)), factors: { names: ['Feed', 'Light'], levels } };
    const made = makeFinding(input);
    if (!made.ok) continue;
    const looks = secondLooks(input, made.value);
    if (looks.uneven) counted.uneven += 1 / runs;
    if (looks.outliers.length > 0) counted.outlier += 1 / runs;
    if (factorialFindings(input).some((f) => f.terms.some((t) => t.p !== null && t.p <= f.alpha)))
      counted.factors += 1 / runs;
  }
  return counted;
}
