import type { PairDifference, TreatmentSummary } from './comparison';
import { type Errors, contrast, percentChange } from './contrast';
import { letterDisplay } from './letters';
import type { LinearModel } from './linearModel';
import { studentizedRangeCdf, studentizedRangeQuantile } from './studentizedRange';

/**
 * Every pair of treatments, with simultaneous intervals and p-values by Tukey (1953) and Kramer (1956).
 *
 * @param names in the order of the result
 * @param index where each stands in the model
 * @param origin what was taken off the values before the fit
 * @returns differences in raw units; intervals and p are null without a residual
 */
export function allPairs(
  names: readonly string[],
  index: ReadonlyMap<string, number>,
  model: LinearModel,
  errors: Errors | null,
  { alpha, origin }: { alpha: number; origin: number },
): PairDifference[] {
  const pairs: PairDifference[] = [];
  for (let i = 0; i < names.length; i++) {
    for (let j = i + 1; j < names.length; j++) {
      const [a, b] = [names[i]!, names[j]!];
      const { difference, se } = contrast(model, errors, index.get(a)!, index.get(b)!);
      if (se === null || !errors) {
        pairs.push({ a, b, difference, low: null, high: null, p: null, percent: { ofB: null, ofA: null } });
        continue;
      }
      const df = errors.df(index.get(a)!, index.get(b)!);
      const critical = studentizedRangeQuantile(1 - alpha, names.length, df) / Math.SQRT2;
      const half = critical * se;
      const of = (x: string, y: string) =>
        percentChange(model, errors, [index.get(x)!, index.get(y)!], origin, critical);
      const q = (Math.abs(difference) / se) * Math.SQRT2;
      const p = Math.min(1, Math.max(0, 1 - studentizedRangeCdf(q, names.length, df)));
      pairs.push({
        ...{ a, b, difference, p },
        low: difference - half,
        high: difference + half,
        percent: { ofB: of(a, b), ofA: of(b, a) },
      });
    }
  }
  return pairs;
}

/**
 * Letters that treatments share when their difference isn’t significant at alpha (Piepho 2004).
 *
 * @param pairs of the same names, all with a p-value
 */
export function lettersOf(
  names: readonly string[],
  treatments: readonly TreatmentSummary[],
  pairs: readonly PairDifference[],
  alpha: number,
): Record<string, string> {
  const order = names
    .map((_, i) => i)
    .sort((x, y) => treatments[y]!.adjustedMean - treatments[x]!.adjustedMean);
  const p = new Map(pairs.map((d) => [`${d.a}\n${d.b}`, d.p!]));
  const letters = letterDisplay(order, (a, b) => {
    const [first, second] = a < b ? [a, b] : [b, a];
    return p.get(`${names[first]!}\n${names[second]!}`)! < alpha;
  });
  return Object.fromEntries(names.map((n, i) => [n, letters[i]!]));
}
