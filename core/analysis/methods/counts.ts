import { formatFigure } from '../../quantity/format';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { ok } from '../../model/result';
import { type CountRow, type QuasiPoisson, quasiPoisson } from '../../stats/quasiPoisson';
import type { Analysis, AnalysisInput, Method, Spread, Summary } from '../analysis';
import { type Contrast, percentOf } from '../contrast';
import { figureOfVisits } from '../number';
import { byBonferroni, comparedNames, contrastsOf, familyOf, inBlocks } from './pairwise';
import { permutation } from './permutation';

/** Fewer than so many a unit on average are compared by swapping labels instead (practice). */
export const FEW_COUNTED = 3;

const total = (rows: readonly CountRow[]) => rows.reduce((s, r) => s + r.count, 0);

function spreadOf(fit: QuasiPoisson, rows: readonly CountRow[], treatments: number): Spread {
  if (fit.dispersion === null) return rows.length === treatments ? 'oneEach' : 'noFreedom';
  return fit.dispersion <= 1e-12 ? 'zero' : 'shown';
}

/** Counts as rates: each as a multiple of the other, the scatter between units taken from the units. */
export const counts: Method = {
  id: 'counts',
  name: 'counts as rates',
  figure: 'rate',
  accepts: ['count'],
  // A distance outside a band isn't a count.
  takes: (trait) => trait.direction !== 'band',
  analyse: (input) => {
    const names = comparedNames(input);
    if (!names.ok) return names;
    const made = analysed(input, names.value);
    if (made !== null) return ok(made);
    const swapped = permutation.analyse(input);
    return swapped.ok
      ? ok({ ...swapped.value, smallPrint: `Counts too small for rates. ${swapped.value.smallPrint}` })
      : swapped;
  },
};

/** @returns null where counts are too small for a rate model */
function analysed(input: AnalysisInput, names: readonly string[]): Analysis | null {
  const { trait, rows, alpha, control, peers } = input;
  const blockNames = inBlocks(rows) ? [...new Set(rows.map((r) => r.block))] : [null];
  const units = rows.map((r): CountRow => ({
    treatment: names.indexOf(r.treatment),
    block: Math.max(0, blockNames.indexOf(r.block)),
    count: figureOfVisits(r.visits, trait) ?? NaN,
    exposure: r.divisor,
  }));
  const own = names.map((_, i) => units.filter((u) => u.treatment === i));
  if (total(units) / units.length < FEW_COUNTED || own.some((g) => total(g) === 0)) return null;
  const fit = quasiPoisson(units, names.length, blockNames.length);
  if (fit === null) return null;
  const spread = spreadOf(fit, units, names.length);
  const { versusControl, pairs } = contrastsOf(names, input, (a, b, family) =>
    contrastOf(fit, names, [a, b], { family, alpha, tested: spread === 'shown' }),
  );
  const phi = fit.dispersion ?? 0;
  return {
    method: 'counts',
    alpha,
    control,
    spread,
    summaries: names.map((n, i) =>
      summaryOf(n, own[i]!, { phi, df: fit.df, alpha, tested: spread === 'shown' }),
    ),
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
    smallPrint: `Quasi-Poisson model on ${units.length} counts, one a unit${blockNames.length > 1 ? `, ${blockNames.length} blocks taken off` : ''}${trait.per ? ', what they are divided by as exposure' : ''}; units scatter ${formatFigure(phi, 2)} times as much as counts drawn by lot (χ²/df, ${fit.df} df). Effects are ratios of rates, t limits and p ${byBonferroni(familyOf(names, peers))}.`,
  };
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

function summaryOf(
  name: string,
  units: readonly CountRow[],
  { phi, df, alpha, tested }: { phi: number; df: number; alpha: number; tested: boolean },
): Summary {
  const rates = units.map((u) => u.count / u.exposure);
  const mean = rates.reduce((s, r) => s + r, 0) / rates.length;
  const rate = total(units) / units.reduce((s, u) => s + u.exposure, 0);
  const half = tested ? tQuantile(1 - alpha / 2, df) * Math.sqrt(phi / total(units)) : null;
  return {
    name,
    n: units.length,
    mean,
    estimate: rate,
    low: half === null ? null : rate * Math.exp(-half),
    high: half === null ? null : rate * Math.exp(half),
    sd:
      units.length > 1
        ? Math.sqrt(rates.reduce((s, r) => s + (r - mean) ** 2, 0) / (units.length - 1))
        : null,
    min: Math.min(...rates),
    max: Math.max(...rates),
  };
}
