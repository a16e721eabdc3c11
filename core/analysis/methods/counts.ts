import { formatFigure } from '../../quantity/format';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { ok } from '../../model/result';
import { rateRatio } from '../../stats/rateRatio';
import { type CountRow, type QuasiPoisson, quasiPoisson } from '../../stats/quasiPoisson';
import type { Analysis, AnalysisInput, Method, Spread, Summary } from '../analysis';
import { type Contrast, percentOf } from '../contrast';
import { figureOfVisits } from '../number';
import { byBonferroni, comparedNames, contrastsOf, familyOf, inBlocks } from './pairwise';

/** Fewer than so many a unit on average, or none at all of one contender, are compared by scores (practice). */
const FEW_COUNTED = 3;

const total = (rows: readonly CountRow[]) => rows.reduce((s, r) => s + r.count, 0);

/** Counts as rates: each as a multiple of the other, the scatter between units taken from the units. */
export const counts: Method = {
  id: 'counts',
  name: 'counts as rates',
  figure: 'rate',
  accepts: ['count'],
  // A distance outside a band isn't a count.
  // A difference, a mean over time or a rate of counts isn't a count.
  takes: ({ direction, summary }) => direction !== 'band' && (summary === 'last' || summary === 'sum'),
  analyse: (input) => {
    const names = comparedNames(input);
    if (!names.ok) return names;
    return ok(analysed(input, names.value));
  },
};

/** The model of these units, of blocks that have any; null where it can't be fitted. */
function fitted(units: readonly CountRow[], names: readonly string[]): QuasiPoisson | null {
  const own = (i: number) => units.filter((u) => u.treatment === i);
  const counted = names.flatMap((_, i) => (total(own(i)) > 0 ? [i] : []));
  const inBlock = (b: number) => units.filter((u) => u.block === b);
  const blocks = [...new Set(units.map((u) => u.block))].filter((b) => total(inBlock(b)) > 0);
  const rows = units
    .filter((u) => counted.includes(u.treatment) && blocks.includes(u.block))
    .map((u) => ({ ...u, treatment: counted.indexOf(u.treatment), block: blocks.indexOf(u.block) }));
  if (counted.length === 0) return null;
  // One alone in its blocks leaves nothing over: its scatter then holds the blocks' too.
  const alone = counted.length === 1;
  return quasiPoisson(alone ? rows.map((r) => ({ ...r, block: 0 })) : rows, counted.length, alone ? 1 : blocks.length); // prettier-ignore
}

function analysed(input: AnalysisInput, names: readonly string[]): Analysis {
  const { trait, rows, alpha, control, peers } = input;
  const blockNames = inBlocks(rows) ? [...new Set(rows.map((r) => r.block))] : [null];
  const units = rows.map((r, i): CountRow => ({
    treatment: names.indexOf(r.treatment),
    block: Math.max(0, blockNames.indexOf(rows[i]!.block)),
    count: figureOfVisits(r.visits, trait) ?? NaN,
    exposure: r.divisor,
  }));
  const own = names.map((_, i) => units.filter((u) => u.treatment === i));
  const few = total(units) / units.length < FEW_COUNTED || own.some((g) => total(g) === 0);
  const fit = fitted(units, names);
  // Few counts show less than the scatter of counts drawn by lot by chance alone.
  const phi = few ? Math.max(1, fit?.dispersion ?? 1) : (fit?.dispersion ?? 0);
  const df = fit?.df ?? 0;
  const spread: Spread =
    total(units) === 0
      ? 'zero'
      : fit === null || fit.dispersion === null
        ? rows.length === names.length
          ? 'oneEach'
          : 'noFreedom'
        : phi <= 1e-12
          ? 'zero'
          : 'shown';
  const tested = spread === 'shown';
  const { versusControl, pairs } = contrastsOf(names, input, (a, b, family) => {
    const made =
      few || fit === null
        ? scored(units, names, [a, b], { family, alpha, phi, df, tested })
        : contrastOf(fit, names, [a, b], { family, alpha, tested });
    if (made.low === null) return made;
    const of = (name: string) =>
      rateOf(own[names.indexOf(name)]!, { phi, df, alpha: alpha / family, tested, few });
    return { ...made, units: differenceOf(of(a), of(b)) };
  });
  return {
    method: 'counts',
    alpha,
    control,
    spread: tested && pairs.every((c) => c.low === null) ? 'zero' : spread,
    summaries: names.map((n, i) => summaryOf(n, own[i]!, { phi, df, alpha, tested, few })),
    versusControl,
    pairs,
    assumptions: [
      { what: 'units independent of each other', holds: null, seen: 'by the layout, not by the values' },
      {
        what: 'scatter grows with the count',
        holds: null,
        seen: `${units.length} units are too few to tell`,
      },
    ],
    unitSd: null,
    smallPrint: `${few ? 'Score test of rates' : 'Quasi-Poisson model'} on ${units.length} counts, one a unit${blockNames.length > 1 ? `, ${few ? 'inside ' : ''}${blockNames.length} blocks${few ? '' : ' taken off'}` : ''}${trait.per ? ', what they are divided by as exposure' : ''}; units scatter ${formatFigure(phi, 2)} times as much as counts drawn by lot (χ²/df, ${df} df${few ? ', 1 at least' : ''}). Effects are ratios of rates, t limits${few ? ' by turning the test round,' : ''} and p ${byBonferroni(familyOf(names, peers))}.`,
  };
}

/** A pair of few counts, or of none on one side: the score test of its ratio, and the interval by turning it round. */
function scored(
  units: readonly CountRow[],
  names: readonly string[],
  [a, b]: readonly [string, string],
  {
    family,
    alpha,
    phi,
    df,
    tested,
  }: { family: number; alpha: number; phi: number; df: number; tested: boolean },
): Contrast {
  const of = (name: string, block: number) => {
    const own = units.filter((u) => u.treatment === names.indexOf(name) && u.block === block);
    return { count: total(own), exposure: own.reduce((s, u) => s + u.exposure, 0) };
  };
  const strata = [...new Set(units.map((u) => u.block))].map((k) => ({ a: of(a, k), b: of(b, k) }));
  const ratio = rateRatio(strata, phi);
  const base = { a, b, scale: 'ratio' as const, estimate: ratio?.estimate ?? 1 };
  if (!ratio || !tested) return { ...base, low: null, high: null, p: null, percent: null };
  const { low, high } = ratio.interval(tQuantile(1 - alpha / family / 2, df));
  const p = Math.min(1, family * 2 * tCdf(-Math.abs(ratio.score(1)), df));
  return { ...base, low, high, p, percent: percentOf(base.estimate, low, high) };
}

function contrastOf(
  fit: QuasiPoisson,
  names: readonly string[],
  [a, b]: readonly [string, string],
  { family, alpha, tested }: { family: number; alpha: number; tested: boolean },
): Contrast {
  const [i, j] = [names.indexOf(a), names.indexOf(b)];
  const log = fit.logRatio(i, j);
  const estimate = Math.exp(log);
  const base = { a, b, scale: 'ratio' as const, estimate };
  if (!tested) return { ...base, low: null, high: null, p: null, percent: percentOf(estimate, null, null) };
  const se = Math.sqrt(fit.dispersion! * fit.variance(i, j));
  const half = tQuantile(1 - alpha / family / 2, fit.df) * se;
  const [low, high] = [Math.exp(log - half), Math.exp(log + half)];
  const p = Math.min(1, family * 2 * tCdf(-Math.abs(log) / se, fit.df));
  return { ...base, low, high, p, percent: percentOf(estimate, low, high) };
}

interface Known {
  phi: number;
  df: number;
  alpha: number;
  tested: boolean;
  few: boolean;
}

/** A rate with limits of its own: by its logarithm, of few counts those whose score is nearer than t. */
function rateOf(units: readonly CountRow[], { phi, df, alpha, tested, few }: Known) {
  const [count, exposure] = [total(units), units.reduce((s, u) => s + u.exposure, 0)];
  const rate = count / exposure;
  if (!tested) return { rate, low: null, high: null };
  const t = tQuantile(1 - alpha / 2, df);
  if (!few) {
    const half = t * Math.sqrt(phi / count);
    return { rate, low: rate * Math.exp(-half), high: rate * Math.exp(half) };
  }
  const c = t ** 2 * phi;
  const reach = Math.sqrt(c ** 2 + 4 * count * c);
  return {
    rate,
    low: Math.max(0, (2 * count + c - reach) / 2 / exposure),
    high: (2 * count + c + reach) / 2 / exposure,
  };
}

/** A difference of two rates from their own limits, squared and added (MOVER; Zou and Donner 2008, from memory). */
function differenceOf(a: ReturnType<typeof rateOf>, b: ReturnType<typeof rateOf>): Contrast['units'] {
  const estimate = a.rate - b.rate;
  return {
    estimate,
    low: estimate - Math.hypot(a.rate - a.low!, b.high! - b.rate),
    high: estimate + Math.hypot(a.high! - a.rate, b.rate - b.low!),
  };
}

function summaryOf(name: string, units: readonly CountRow[], known: Known): Summary {
  const rates = units.map((u) => u.count / u.exposure);
  const mean = rates.reduce((s, r) => s + r, 0) / rates.length;
  const { rate, low, high } = rateOf(units, known);
  return {
    ...{ name, n: units.length, mean, estimate: rate, low, high },
    sd:
      units.length > 1
        ? Math.sqrt(rates.reduce((s, r) => s + (r - mean) ** 2, 0) / (units.length - 1))
        : null,
    min: Math.min(...rates),
    max: Math.max(...rates),
  };
}
