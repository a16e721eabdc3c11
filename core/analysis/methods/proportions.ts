import { formatFigure, formatP } from '../../quantity/format';
import { ok } from '../../model/result';
import { dispersion, pooledCounts } from '../../stats/dispersion';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import { fisherExact } from '../../stats/fisherExact';
import { mantelHaenszel } from '../../stats/mantelHaenszel';
import { newcombe, wilson } from '../../stats/proportion';
import {
  type KOfN,
  type UnitStratum,
  proportionPermutation,
  proportionScores,
  swaps,
} from '../../stats/proportionPermutation';
import type { Analysis, AnalysisInput, AnalysisRow, Method, Summary } from '../analysis';
import type { Contrast } from '../contrast';
import { byBonferroni, comparedNames, contrastsOf, familyOf, inBlocks } from './pairwise';

/** Up to so many ways to swap units every one is tried. */
const MOST_SWAPPED = 200_000;

/** Degrees of freedom from which on the scatter of all units is known well enough to stand for swapping (practice). */
const SCATTER_KNOWN = 8;

/** A unit as it was counted. */
interface Counted extends KOfN {
  treatment: string;
  block: string;
}

/** k and n of a unit: of its last visit, or of all where they are added. */
export function countOf(row: Pick<AnalysisRow, 'visits'>, summed: boolean): KOfN {
  const visits = summed ? row.visits : row.visits.slice(-1);
  return pooledCounts(
    visits.flatMap((v) =>
      v.samples.flatMap(({ observed: o }) => (o.type === 'kOfN' ? [{ k: o.k, n: o.n }] : [])),
    ),
  );
}

const own = (units: readonly Counted[], treatment: string) => units.filter((u) => u.treatment === treatment);

/** Units of two treatments, block by block. */
function strataOf(units: readonly Counted[], a: string, b: string): UnitStratum[] {
  const blocks = [...new Set(units.map((u) => u.block))];
  return blocks.map((block) => {
    const here = units.filter((u) => u.block === block);
    return { a: own(here, a), b: own(here, b) };
  });
}

/** The least p that swapping these units can give, two-sided. */
function leastP(strata: readonly UnitStratum[]): number {
  const arrangements = swaps(strata);
  const mirrored = strata.every((s) => s.a.length === s.b.length);
  return Math.min(1, (mirrored ? 2 : 1) / arrangements);
}

/**
 * p of a pair where too few units can be swapped: Cochran–Mantel–Haenszel's statistic over the blocks, divided by how
 * much the units of all treatments scatter, held against Student's t with the degrees of freedom of that scatter.
 */
function byScatter(strata: readonly UnitStratum[], { spread, df }: Scatter): number | null {
  if (df < SCATTER_KNOWN) return null;
  const { chiSquare } = mantelHaenszel(
    strata.map((s) => ({ treatment: pooledCounts(s.a), control: pooledCounts(s.b) })),
  );
  return chiSquare === null ? 1 : 2 * tCdf(-Math.sqrt(chiSquare / spread), df);
}

/** How much more units scatter than single ones would, 1 at least, and from how many degrees of freedom. */
interface Scatter {
  spread: number;
  df: number;
}

/** Whether swapping units of a pair could give a p below the level at all. */
const canBeSwapped = (strata: readonly UnitStratum[], { family, alpha }: { family: number; alpha: number }) =>
  leastP(strata) * family <= alpha;

/** One pair at its share of the error: Bonferroni over the family, for limits and p alike. */
function contrastOf(
  units: readonly Counted[],
  [a, b]: readonly [string, string],
  { family, alpha, ...scatter }: { family: number; alpha: number } & Scatter,
): Contrast {
  const share = (name: string) => {
    const { k, n } = pooledCounts(own(units, name));
    return { k, n, shrunk: wilson(k / scatter.spread, n / scatter.spread, alpha / family) };
  };
  const [of, against] = [share(a), share(b)];
  const { difference, low, high } = newcombe(of.shrunk, against.shrunk);
  const strata = strataOf(units, a, b);
  const alone = own(units, a).length < 2 || own(units, b).length < 2;
  const swapped = () =>
    swaps(strata) <= MOST_SWAPPED ? proportionPermutation(strata) : proportionScores(strata);
  // Too few units to swap: even the most extreme outcome would be likelier than the level asks for.
  const p = alone ? null : canBeSwapped(strata, { family, alpha }) ? swapped() : byScatter(strata, scatter);
  const base = { a, b, scale: 'difference' as const, estimate: 100 * (difference ?? NaN), percent: null };
  if (p === null || low === null || high === null) {
    return { ...base, low: null, high: null, p: null };
  }
  const adjusted = Math.min(1, p * family);
  // An interval that the units themselves don't bear out ends at nought.
  const borne = adjusted <= alpha;
  return {
    ...base,
    low: 100 * (borne ? low : Math.min(0, low)),
    high: 100 * (borne ? high : Math.max(0, high)),
    p: adjusted,
  };
}

function summaryOf(name: string, units: readonly Counted[], spread: number, alpha: number): Summary {
  const { k, n } = pooledCounts(units);
  const { proportion } = wilson(k, n, alpha);
  const { low, high } = wilson(k / spread, n / spread, alpha);
  const shares = units.map((u) => (100 * u.k) / u.n);
  const mean = 100 * (proportion ?? NaN);
  const middle = shares.reduce((s, x) => s + x, 0) / shares.length;
  return {
    name,
    n: units.length,
    mean,
    estimate: mean,
    low: units.length > 1 && low !== null ? 100 * low : null,
    high: units.length > 1 && high !== null ? 100 * high : null,
    sd:
      units.length > 1
        ? Math.sqrt(shares.reduce((s, x) => s + (x - middle) ** 2, 0) / (units.length - 1))
        : null,
    min: Math.min(...shares),
    max: Math.max(...shares),
    counted: `${k}/${n}`,
  };
}

/**
 * k of n as what it is: proportions pooled over units, never outside 0 to 100 %, with whole units (pots, not cuttings)
 * swapped for p and the intervals made wider by how much units scatter.
 */
export const proportions: Method = {
  id: 'proportions',
  name: 'proportions, units swapped',
  figure: 'share',
  accepts: ['kOfN'],
  analyse: (input) => {
    const names = comparedNames(input);
    return names.ok ? ok(analysed(input, names.value)) : names;
  },
};

function analysed({ trait, rows, control, alpha, peers }: AnalysisInput, names: readonly string[]): Analysis {
  const blocked = inBlocks(rows);
  const units = rows.map((r): Counted => ({
    treatment: r.treatment,
    block: blocked ? r.block! : '',
    ...countOf(r, trait.summary === 'sum'),
  }));
  const seen = dispersion(names.map((n) => own(units, n)));
  const scatter = {
    spread: Math.max(1, seen ?? 1),
    df: names.reduce((s, n) => s + own(units, n).length - 1, 0),
  };
  const { spread } = scatter;
  let leaned = false;
  const { versusControl, pairs } = contrastsOf(names, { control, peers }, (a, b, family) => {
    const contrast = contrastOf(units, [a, b], { family, alpha, ...scatter });
    leaned ||= contrast.p !== null && !canBeSwapped(strataOf(units, a, b), { family, alpha });
    return contrast;
  });
  const alone = names.every((n) => own(units, n).length === 1);
  const oneByOne = alone ? fisherText(units, names, control) : '';
  const some = pairs.some((c) => c.low !== null);
  return {
    method: 'proportions',
    alpha,
    control,
    spread: some ? 'shown' : alone ? 'oneEach' : 'tooFew',
    summaries: names.map((n) => summaryOf(n, own(units, n), spread, alpha)),
    versusControl,
    pairs,
    assumptions: [
      { what: 'units handed out by chance', holds: null, seen: 'by the layout, not by the values' },
      ...(leaned
        ? [
            {
              what: 'contenders scatter alike',
              holds: null,
              seen: 'so few units can’t tell by swapping them; p leans on the scatter of all',
            },
          ]
        : []),
      {
        what: 'units scatter no more than single ones drawn by lot',
        fails: 'units scatter more than single ones drawn by lot',
        holds: seen === null ? null : seen <= 1.5,
        seen:
          seen === null
            ? 'one unit of each'
            : `${formatFigure(seen, 1)} times as much${seen > 1 ? '; intervals are made wider by it' : ''}`,
      },
    ],
    unitSd: null,
    smallPrint: `Proportions pooled over units; difference by Newcombe (1998, method 10), each by Wilson (1927), on counts divided by how much units scatter (χ²/df = ${formatFigure(seen ?? 1, 2)}, 1 at least). p: whole units swapped between two contenders ${blocked ? 'inside blocks ' : ''}in every possible way, or by the normal curve where there are more than ${MOST_SWAPPED.toLocaleString('en')}; ${leaned ? `where so few can be swapped that nothing could be told, Cochran–Mantel–Haenszel’s statistic ${blocked ? 'over blocks ' : ''}divided by the scatter, against Student’s t with ${scatter.df} degrees of freedom; ` : ''}an interval that p doesn’t bear out ends at nought. Both ${byBonferroni(familyOf(names, peers))}.${oneByOne}`,
  };
}

/** With one unit each there is Fisher's test alone, which takes every single one for a unit of its own. */
function fisherText(units: readonly Counted[], names: readonly string[], control: string): string {
  const of = (name: string) => pooledCounts(own(units, name));
  const base = of(control);
  const smallest = names
    .filter((n) => n !== control)
    .map((n) => fisherExact(of(n).k, of(n).n, base.k, base.n));
  return ` Counted one by one, as if each had been handed its treatment by itself, Fisher’s exact p is ${smallest.map(formatP).join(', ')}; they share a unit, so it proves nothing of the treatment.`;
}
