import { err, ok } from '../../model/result';
import { type PermutationBlock, permutationTest } from '../../stats/permutation';
import type { AnalysisInput, Method, Summary } from '../analysis';
import { type Contrast, turned } from '../contrast';
import { figuresOf } from './figures';

const mean = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0) / xs.length;

interface Figure {
  treatment: string;
  block: string;
  value: number;
}

/** Units of two treatments, block by block. */
function blocksOf(figures: readonly Figure[], a: string, b: string): PermutationBlock[] {
  const blocks = [...new Set(figures.map((f) => f.block))];
  const of = (block: string, name: string) =>
    figures.filter((f) => f.block === block && f.treatment === name).map((f) => f.value);
  return blocks.map((block) => ({ a: of(block, a), b: of(block, b) }));
}

function summaryOf(name: string, values: readonly number[]): Summary {
  const m = mean(values);
  return {
    name,
    n: values.length,
    mean: m,
    estimate: m,
    low: null,
    high: null,
    sd:
      values.length > 1
        ? Math.sqrt(values.reduce((s, v) => s + (v - m) ** 2, 0) / (values.length - 1))
        : null,
    min: Math.min(...values),
    max: Math.max(...values),
  };
}

interface Tested {
  contrast: Contrast;
  exact: boolean;
  arrangements: number;
}

/** One pair at its share of the error: Bonferroni over the family, for limits and p alike. */
function test(figures: readonly Figure[], a: string, b: string, family: number, alpha: number): Tested {
  const found = permutationTest(blocksOf(figures, a, b))!;
  const interval = found.interval(alpha / family);
  return {
    exact: found.exact,
    arrangements: found.arrangements,
    contrast: {
      a,
      b,
      scale: 'difference',
      estimate: found.difference,
      low: interval?.low ?? null,
      high: interval?.high ?? null,
      p: interval === null ? null : Math.min(1, found.p * family),
      percent: null,
    },
  };
}

/** Means of units, tested by swapping labels in every possible way: nothing is assumed of their shape. */
export const permutation: Method = {
  id: 'permutation',
  name: 'means, by swapping labels',
  accepts: ['continuous', 'count', 'kOfN', 'level', 'rank'],
  analyse: (input) => {
    const names = input.order.filter((t) => input.rows.some((r) => r.treatment === t));
    if (!names.includes(input.control)) {
      return err({ tag: 'unknownControl', control: input.control, known: names });
    }
    if (names.length < 2) return err({ tag: 'oneTreatment', treatment: names[0]! });
    return ok(analysed(input, names));
  },
};

function analysed({ trait, rows, control, alpha, peers }: AnalysisInput, names: readonly string[]) {
  const values = figuresOf(rows, trait);
  const blocked = rows.every((r) => r.block !== null);
  const figures = rows.map((r, i) => ({
    treatment: r.treatment,
    block: blocked ? r.block! : '',
    value: values[i]!,
  }));
  const others = names.filter((n) => n !== control);
  const pairsWithout = (others.length * (others.length - 1)) / 2;
  const allPairs = (names.length * (names.length - 1)) / 2;
  const own = others.map((n) => test(figures, n, control, peers ? allPairs : others.length, alpha));
  const between = others.flatMap((a, i) =>
    others.slice(i + 1).map((b) => test(figures, a, b, peers ? allPairs : pairsWithout, alpha).contrast),
  );
  const versusControl = own.map((t) => t.contrast);
  const pairs = names.flatMap((a, i) =>
    names.slice(i + 1).map((b) => {
      if (b === control) return versusControl.find((c) => c.a === a)!;
      if (a === control) return turned(versusControl.find((c) => c.a === b)!);
      return between.find((c) => c.a === a && c.b === b) ?? turned(between.find((c) => c.a === b)!);
    }),
  );
  const alone = names.every((n) => figures.filter((f) => f.treatment === n).length === 1);
  const some = versusControl.some((c) => c.low !== null);
  const exact = own.every((t) => t.exact);
  const counts = [...new Set(own.map((t) => t.arrangements))];
  return {
    method: 'permutation',
    alpha,
    control,
    spread: some ? ('shown' as const) : alone ? ('oneEach' as const) : ('tooFew' as const),
    summaries: names.map((n) =>
      summaryOf(
        n,
        figures.filter((f) => f.treatment === n).map((f) => f.value),
      ),
    ),
    versusControl,
    pairs,
    assumptions: [
      { what: 'units handed out by chance', holds: null, seen: 'by the layout, not by the values' },
      { what: 'a treatment shifts all its units alike', holds: null, seen: 'for the interval alone' },
    ],
    unitSd: null,
    smallPrint: `Difference of means on ${rows.length} values, one a unit; labels of ${peers ? 'two contenders' : 'a contender and the control'} swapped ${blocked ? 'inside blocks ' : ''}in ${exact ? 'every possible way' : 'random ways'} (${counts.join(', ')} arrangements each). Intervals: shifts that aren’t refuted. Both by Bonferroni over ${peers ? allPairs : others.length} ${(peers ? allPairs : others.length) === 1 ? 'comparison' : 'comparisons'}.`,
  };
}
