import { ok } from '../../model/result';
import { formatSignificant, sayP } from '../../quantity/format';
import { friedman, kruskalWallis, medianOf, midranks } from '../../stats/ranks';
import { superiority, superiorityInBlocks } from '../../stats/superiority';
import { MOST_SWAPPED, swappedApart } from '../../stats/swapping';
import type { Analysis, AnalysisInput, Method, Summary } from '../analysis';
import { type Contrast, agreeing } from '../contrast';
import { kindOf } from '../../model/traitKinds';
import { figuresOf } from '../figures';
import { linearModel } from './linearModel';
import {
  byBonferroni,
  byClosedTesting,
  canTell,
  closedP,
  comparedNames,
  contrastsOf,
  familyOf,
  inBlocks,
} from './pairwise';

/** A unit's value with its contender and block. */
interface Ranked {
  group: number;
  block: string;
  value: number;
}

/** Values by contender, and by block where each block has exactly one unit of each. */
interface Arranged {
  units: Ranked[];
  groups: number[][];
  blocks: number[][] | null;
}

function arranged({ rows, trait }: AnalysisInput, names: readonly string[]): Arranged {
  const values = figuresOf(rows, trait);
  const blocked = inBlocks(rows);
  const units = rows.map((r, i): Ranked => ({
    group: names.indexOf(r.treatment),
    block: blocked ? r.block! : '',
    value: values[i]!,
  }));
  const of = (group: number, block?: string) =>
    units.flatMap((u) => (u.group === group && (block === undefined || u.block === block) ? [u.value] : []));
  const blocks = [...new Set(units.map((u) => u.block))];
  const cells = blocks.length < 2 ? null : blocks.map((b) => names.map((_, g) => of(g, b)));
  return {
    units,
    groups: names.map((_, g) => of(g)),
    blocks: cells?.every((row) => row.every((c) => c.length === 1)) ? cells.map((row) => row.flat()) : null,
  };
}

/** p of groups: ranks among these alone, handed out inside blocks. */
function ranksApart({ units }: Arranged, set: readonly number[], base: number | null): number | null {
  const these = units.filter((u) => set.includes(u.group));
  const ranks = midranks(these.map((u) => u.value));
  return swappedApart(
    these.map(({ group, block }, i) => ({ group, block, score: ranks[i]! })),
    base,
  );
}

function contrastOf(
  data: Arranged,
  names: readonly string[],
  [a, b]: readonly [string, string],
  { family, alpha, p }: { family: number; alpha: number; p: number | null },
): Contrast {
  const [i, j] = [names.indexOf(a), names.indexOf(b)];
  const { share, low, high } = data.blocks
    ? superiorityInBlocks(
        data.blocks.map((row) => [row[i]!, row[j]!]),
        alpha / family,
      )
    : superiority(data.groups[i]!, data.groups[j]!, alpha / family);
  const base = { a, b, scale: 'superiority' as const, estimate: share, percent: null };
  if (p === null) return { ...base, low: null, high: null, p: null };
  return { ...base, ...agreeing('superiority', { estimate: share, low, high }, p, alpha), p };
}

function summaryOf(name: string, values: readonly number[]): Summary {
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  return {
    name,
    n: values.length,
    mean,
    estimate: medianOf(values),
    low: null,
    high: null,
    sd:
      values.length > 1
        ? Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1))
        : null,
    min: Math.min(...values),
    max: Math.max(...values),
  };
}

/**
 * Ordered steps and ranks as what they are: no mean, no difference of steps. Ranks among those compared, handed out by
 * swapping units; the effect is in how many of ten pairs one is ahead. Where swapping so few could tell nothing, and in
 * Latin squares, steps are taken for figures: by the linear model.
 */
export const scores: Method = {
  id: 'scores',
  name: 'ranks of the scores',
  figure: 'median',
  accepts: ['level', 'rank', 'continuous', 'count'],
  analyse: (input) => {
    const names = comparedNames(input);
    if (!names.ok) return names;
    const data = arranged(input, names.value);
    const several = names.value.flatMap((_, g) => (data.groups[g]!.length > 1 ? [g] : []));
    const tells = canTell(data.units, names.value, input);
    const few = several.some((i) => several.some((j) => i < j && !tells(i, j)));
    // By the plan alone, whatever is found.
    const squared = input.rows.every((r) => r.column !== null);
    // An order of six lies whole on two sides in one of ten trials: as figures so few would tell what isn't there.
    const short = kindOf(input.trait).observes === 'rank' && several.some((g) => data.groups[g]!.length < 4);
    if (!short && (squared || (few && several.length > 1))) return asFigures(input);
    return ok(analysed(input, names.value, data, tells));
  },
};

/** Steps as figures, and why. */
const asFigures = (input: AnalysisInput): ReturnType<Method['analyse']> => {
  const made = linearModel.analyse(input);
  return made.ok
    ? ok({
        ...made.value,
        smallPrint: `Steps taken for figures: ranks need more units. ${made.value.smallPrint}`,
      })
    : made;
};

function analysed(
  input: AnalysisInput,
  names: readonly string[],
  data: Arranged,
  tells: (a: number, b: number) => boolean,
): Analysis {
  const { alpha, control, peers, rows } = input;
  const home = peers ? -1 : names.indexOf(control);
  const p = closedP(names, input, (set) =>
    set.some((g) => data.groups[g]!.length < 2) || (set.length === 2 && !tells(set[0]!, set[1]!))
      ? null
      : ranksApart(data, set, set.includes(home) ? home : null),
  );
  const { versusControl, pairs } = contrastsOf(names, input, (a, b, family) =>
    contrastOf(data, names, [a, b], { family, alpha, p: p(a, b) }),
  );
  const some = pairs.some((c) => c.low !== null);
  const alone = data.groups.every((g) => g.length === 1);
  const level = data.groups.flat().every((v) => v === data.groups[0]![0]);
  return {
    method: 'scores',
    alpha,
    control,
    spread: some && !level ? 'shown' : alone ? 'oneEach' : level ? 'zero' : 'tooFew',
    summaries: names.map((n, i) => summaryOf(n, data.groups[i]!)),
    versusControl,
    pairs,
    assumptions: [
      { what: 'units handed out by chance', holds: null, seen: 'by the layout, not by the values' },
    ],
    unitSd: null,
    smallPrint:
      some && !level
        ? smallPrint(data, rows.length, byBonferroni(familyOf(names, peers)))
        : `Ranks of ${rows.length} values, one a unit; nothing could be tested.`,
  };
}

function smallPrint(data: Arranged, units: number, shared: string): string {
  const all = data.blocks ? friedman(data.blocks) : kruskalWallis(data.groups);
  const overall =
    all.statistic === null
      ? 'all equal'
      : `${data.blocks ? 'Friedman χ²' : 'Kruskal–Wallis H'}(${all.df}) = ${formatSignificant(all.statistic, 3)}, ${sayP(all.p!)}`;
  return `Ranks of ${units} values, one a unit: ${overall}. Pairs: ranks among the two, units swapped ${data.blocks ? 'inside blocks ' : ''}in every possible way where there are up to ${MOST_SWAPPED.toLocaleString('en')}, else, and of more than two the largest difference, by the normal curve; ${byClosedTesting}. Share of pairs in which one is ahead, ties half (Cliff’s delta is twice it less one); limits by ${data.blocks ? 'Wilson over blocks' : 'Newcombe (2006, method 5)'}, ${shared}; where the two part, the limit towards five of ten is the test’s.`;
}
