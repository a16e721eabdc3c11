import { formatFigure, formatP } from '../../quantity/format';
import { ok } from '../../model/result';
import { type Scatter, pooledCounts, scatterOf } from '../../stats/dispersion';
import fCdf from '@stdlib/stats-base-dists-f-cdf';
import { fisherExact } from '../../stats/fisherExact';
import { generalMantelHaenszel } from '../../stats/mantelHaenszel';
import { newcombe, wilson } from '../../stats/proportion';
import {
  type KOfN,
  type UnitStratum,
  proportionPermutation,
  proportionScores,
  swaps,
} from '../../stats/proportionPermutation';
import type { Analysis, AnalysisInput, AnalysisRow, Method, Summary } from '../analysis';
import { type Contrast, agreeing } from '../contrast';
import { MOST_SWAPPED, swappedApart } from '../../stats/swapping';
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

/** Degrees of freedom below which the scatter of units says too little to lean on (practice). */
const LEAST_FREEDOM = 2;

/** The least p of swapping is so much below the level, or it goes in steps too coarse to find much (practice). */
const FINE = 10;

/** A unit as it was counted. */
interface Counted extends KOfN {
  treatment: string;
  block: string;
  column?: string;
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

/** k and n of each group in each block, of groups by their names. */
const cellsOf = (units: readonly Counted[], names: readonly string[]): KOfN[][] =>
  [...new Set(units.map((u) => u.block))].map((block) => {
    const here = units.filter((u) => u.block === block);
    return names.map((n) => pooledCounts(own(here, n)));
  });

/**
 * p of groups where too few units can be swapped: Cochran–Mantel–Haenszel's statistic over the blocks, divided by how
 * much the units of all treatments scatter, held against F (of two Student's t) with the freedom of that scatter.
 */
function byScatter(units: readonly Counted[], names: readonly string[], { spread, df }: Scatter): number {
  const chiSquare = generalMantelHaenszel(cellsOf(units, names));
  if (chiSquare === null || chiSquare <= 0) return 1;
  const f = chiSquare / (names.length - 1) / spread;
  // The upper tail as the lower one of 1/F: small p keep their digits.
  return fCdf(1 / f, df, names.length - 1);
}

/** p of groups by swapping whole units: each unit's k less what its n lets one expect, of two the pooled shares. */
function bySwapping(units: readonly Counted[], names: readonly string[], base: string | null): number | null {
  const these = units.filter((u) => names.includes(u.treatment));
  if (names.length === 2) {
    const strata = strataOf(these, names[0]!, names[1]!);
    return swaps(strata) <= MOST_SWAPPED ? proportionPermutation(strata) : proportionScores(strata);
  }
  const { k, n } = pooledCounts(these);
  return swappedApart(
    these.map((u) => ({
      group: names.indexOf(u.treatment),
      block: u.block,
      score: u.k - (u.n * k) / n,
    })),
    base === null || !names.includes(base) ? null : names.indexOf(base),
  );
}

/** One pair: Newcombe's interval at its share of the error, made to agree with p. */
function contrastOf(
  units: readonly Counted[],
  [a, b]: readonly [string, string],
  { family, alpha, spread, p }: { family: number; alpha: number; spread: number; p: number | null },
): Contrast {
  const share = (name: string) => {
    const { k, n } = pooledCounts(own(units, name));
    return wilson(k / spread, n / spread, alpha / family);
  };
  const { difference, low, high } = newcombe(share(a), share(b));
  const estimate = 100 * (difference ?? NaN);
  const base = { a, b, scale: 'difference' as const, estimate, percent: null };
  if (p === null || low === null || high === null) return { ...base, low: null, high: null, p: null };
  return { ...base, ...agreeing('difference', { estimate, low: 100 * low, high: 100 * high }, p, alpha), p };
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
  const squared = blocked && rows.every((r) => r.column !== null);
  const units = rows.map((r): Counted => ({
    treatment: r.treatment,
    block: blocked ? r.block! : '',
    ...(squared && { column: r.column! }),
    ...countOf(r, trait.summary === 'sum'),
  }));
  const groups = names.map((n) => own(units, n));
  const numbered = units.map((u) => ({ ...u, group: names.indexOf(u.treatment) }));
  const scatter = scatterOf(numbered);
  const { spread, seen } = scatter;
  const single = (i: number) => groups[i]!.length < 2;
  // Fixed by the plan, whatever is found: units are swapped where that is fine enough to tell every pair.
  const tells = canTell(numbered, names, { control, peers, alpha: alpha / FINE });
  const swapped =
    !squared &&
    names.every((_, i) => single(i) || names.every((_n, j) => j <= i || single(j) || tells(i, j)));
  const leaned = !swapped && scatter.df >= LEAST_FREEDOM;
  const p = closedP(names, { control, peers, alpha }, (set) => {
    if (set.some(single)) return null;
    const those = set.map((i) => names[i]!);
    if (swapped) return bySwapping(units, those, peers ? null : control);
    return leaned ? byScatter(units, those, scatter) : null;
  });
  const { versusControl, pairs } = contrastsOf(names, { control, peers }, (a, b, family) =>
    contrastOf(units, [a, b], { family, alpha, spread, p: p(a, b) }),
  );
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
            ? 'nothing shows it'
            : `${formatFigure(seen, 1)} times as much${seen > 1 ? '; intervals are made wider by it' : ''}`,
      },
    ],
    unitSd: null,
    smallPrint: `Proportions pooled over units; difference by Newcombe (1998, method 10), each by Wilson (1927), on counts divided by how much units scatter (χ²/df = ${formatFigure(spread, 2)}, 1 at least), ${byBonferroni(familyOf(names, peers))}. p: ${
      leaned
        ? `too few units to be swapped, so Cochran–Mantel–Haenszel’s statistic ${blocked ? 'over blocks ' : ''}divided by the scatter, against F with ${scatter.df} degrees of freedom`
        : `whole units swapped between two contenders ${blocked ? 'inside blocks ' : ''}in every possible way, or by the normal curve where there are more than ${MOST_SWAPPED.toLocaleString('en')}, of more than two the largest difference by the normal curve`
    }; ${byClosedTesting}. Where the two part, the limit towards nought is the test’s.${oneByOne}`,
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
