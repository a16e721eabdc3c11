import { ok } from '../../model/result';
import { type PermutationBlock, permutationTest } from '../../stats/permutation';
import type { AnalysisInput, Method, Summary } from '../analysis';
import type { Contrast } from '../contrast';
import { byBonferroni, comparedNames, contrastsOf, familyOf, inBlocks } from './pairwise';
import { figuresOf } from '../figures';
import { mean } from '../../stats/moments';

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
  const permutation = permutationTest(blocksOf(figures, a, b))!;
  const interval = permutation.interval(alpha / family);
  return {
    exact: permutation.exact,
    arrangements: permutation.arrangements,
    contrast: {
      a,
      b,
      scale: 'difference',
      estimate: permutation.difference,
      low: interval?.low ?? null,
      high: interval?.high ?? null,
      p: interval === null ? null : Math.min(1, permutation.p * family),
      percent: null,
    },
  };
}

/** Means of units, tested by swapping labels in every possible way: nothing is assumed of their shape. */
export const permutation: Method = {
  id: 'permutation',
  name: 'means, by swapping labels',
  figure: 'mean',
  accepts: ['continuous', 'count', 'kOfN', 'level', 'rank'],
  analyse: (input) => {
    const names = comparedNames(input);
    return names.ok ? ok(analysed(input, names.value)) : names;
  },
};

function analysed({ trait, rows, control, alpha, peers }: AnalysisInput, names: readonly string[]) {
  const values = figuresOf(rows, trait);
  const blocked = inBlocks(rows);
  const figures = rows.map((r, i) => ({
    treatment: r.treatment,
    block: blocked ? r.block! : '',
    value: values[i]!,
  }));
  const tested: Tested[] = [];
  const { versusControl, pairs } = contrastsOf(names, { control, peers }, (a, b, family) => {
    const one = test(figures, a, b, family, alpha);
    if (peers || b === control) tested.push(one);
    return one.contrast;
  });
  const alone = names.every((n) => figures.filter((f) => f.treatment === n).length === 1);
  const some = versusControl.some((c) => c.low !== null);
  const exact = tested.every((t) => t.exact);
  const counts = [...new Set(tested.map((t) => t.arrangements))];
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
    smallPrint: `Difference of means on ${rows.length} values, one a unit; labels of ${peers ? 'two contenders' : 'a contender and the control'} swapped ${blocked ? 'inside blocks ' : ''}in ${exact ? 'every possible way' : 'random ways'} (${counts.join(', ')} arrangements each). Intervals: shifts that aren’t refuted. Both ${byBonferroni(familyOf(names, peers))}.`,
  };
}
