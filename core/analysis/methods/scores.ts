import { ok } from '../../model/result';
import { formatSignificant, sayP } from '../../quantity/format';
import { type RankTail, rankDifferenceTails, rankSumTails } from '../../stats/rankDistribution';
import { dunn, friedman, kruskalWallis, medianOf } from '../../stats/ranks';
import { type Superiority, superiority, superiorityInBlocks } from '../../stats/superiority';
import type { Analysis, AnalysisInput, Method, Summary } from '../analysis';
import type { Contrast } from '../contrast';
import { figuresOf } from '../figures';
import { byBonferroni, comparedNames, contrastsOf, familyOf } from './pairwise';

/** Up to so many units every way to hand out the ranks is counted; above, the normal curve is close enough. */
export const MOST_COUNTED = 24;
/** How little a limit stands clear of one half that p refutes and the interval alone wouldn't. */
const JUST_CLEAR = 1e-6;

/** Values by treatment, and by block where each block has exactly one unit of each. */
interface Arranged {
  groups: number[][];
  blocks: number[][] | null;
}

function arranged({ rows, trait }: AnalysisInput, names: readonly string[]): Arranged {
  const values = figuresOf(rows, trait);
  const of = (name: string, block?: string) =>
    rows.flatMap((r, i) =>
      r.treatment === name && (block === undefined || r.block === block) ? [values[i]!] : [],
    );
  const blocks = [...new Set(rows.map((r) => r.block))];
  const cells =
    blocks.length < 2 || blocks.includes(null) ? null : blocks.map((b) => names.map((n) => of(n, b!)));
  return {
    groups: names.map((n) => of(n)),
    blocks: cells?.every((row) => row.every((c) => c.length === 1)) ? cells.map((row) => row.flat()) : null,
  };
}

/** p of a pair, not yet shared out, and the least there could be. */
function tailsOf({ groups, blocks }: Arranged): (a: number, b: number) => RankTail | null {
  if (blocks) return rankSumTails(blocks);
  if (groups.flat().length <= MOST_COUNTED) return rankDifferenceTails(groups);
  return (a, b) => {
    const { p } = dunn(groups, a, b);
    return p === null ? null : { p, least: 0 };
  };
}

/** Limits that say the same as p of one half: what p refutes stands clear of it, what it doesn't ends at it. */
function agreeing({ low, high, share }: Superiority, refuted: boolean): [number, number] {
  if (!refuted) return [Math.min(low, 0.5), Math.max(high, 0.5)];
  return share > 0.5 ? [Math.max(low, 0.5 + JUST_CLEAR), high] : [low, Math.min(high, 0.5 - JUST_CLEAR)];
}

function contrastOf(
  data: Arranged,
  names: readonly string[],
  [a, b]: readonly [string, string],
  { family, alpha, tail }: { family: number; alpha: number; tail: ReturnType<typeof tailsOf> },
): Contrast {
  const [i, j] = [names.indexOf(a), names.indexOf(b)];
  const found = data.blocks
    ? superiorityInBlocks(
        data.blocks.map((row) => [row[i]!, row[j]!]),
        alpha / family,
      )
    : superiority(data.groups[i]!, data.groups[j]!, alpha / family);
  const base = { a, b, scale: 'superiority' as const, estimate: found.share, percent: null };
  const chance = tail(i, j);
  if (chance === null || chance.least * family > alpha) return { ...base, low: null, high: null, p: null };
  const p = Math.min(1, chance.p * family);
  // A pair that lies level is refuted by nothing, whatever the others do.
  const [low, high] = agreeing(found, p <= alpha && found.share !== 0.5);
  return { ...base, low, high, p };
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
 * Ordered steps and ranks as what they are: no mean, no difference of steps. Kruskal–Wallis and Dunn on the ranks of all
 * units, Friedman within blocks where each has one unit of each; the effect is in how many of ten pairs one is ahead.
 */
export const scores: Method = {
  id: 'scores',
  name: 'ranks of the scores',
  figure: 'median',
  accepts: ['level', 'rank', 'continuous', 'count'],
  analyse: (input) => {
    const names = comparedNames(input);
    return names.ok ? ok(analysed(input, names.value)) : names;
  },
};

function analysed(input: AnalysisInput, names: readonly string[]): Analysis {
  const { alpha, control, peers, rows } = input;
  const data = arranged(input, names);
  const tail = tailsOf(data);
  const { versusControl, pairs } = contrastsOf(names, input, (a, b, family) =>
    contrastOf(data, names, [a, b], { family, alpha, tail }),
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
  const how = data.blocks
    ? 'rank sums within blocks, p from every way ranks could have been handed out in each block'
    : units <= MOST_COUNTED
      ? 'mean ranks (Dunn 1964), p from every way the ranks could have been handed out'
      : 'mean ranks (Dunn 1964), p by the normal curve, ties taken into account';
  return `Ranks of ${units} values, one a unit: ${overall}. Pairs: ${how}. Share of pairs in which one is ahead, ties half (Cliff’s delta is twice it less one); limits by ${data.blocks ? 'Wilson over blocks' : 'Newcombe (2006, method 5)'}, made to agree with p. Both ${shared}.`;
}
