import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { ok } from '../../model/result';
import { gamesHowell } from '../../stats/gamesHowell';
import type { AnalysisInput, Analysis, Method, Summary } from '../analysis';
import type { Contrast } from '../contrast';
import { roundingVariance } from '../recorded';
import { figuresOf } from '../figures';
import { comparedNames, contrastsOf, inBlocks } from './pairwise';

function summaryOf(name: string, values: readonly number[], alpha: number): Summary {
  const n = values.length;
  const mean = values.reduce((s, v) => s + v, 0) / n;
  const sd = n > 1 ? Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (n - 1)) : null;
  const half = sd === null ? null : (tQuantile(1 - alpha / 2, n - 1) * sd) / Math.sqrt(n);
  return {
    ...{ name, n, mean, estimate: mean, sd },
    low: half === null ? null : mean - half,
    high: half === null ? null : mean + half,
    min: Math.min(...values),
    max: Math.max(...values),
  };
}

/** Means with a spread of their own for each contender: Welch's degrees of freedom, Games–Howell over all pairs. */
export const welch: Method = {
  id: 'welch',
  name: 'means, each with its own spread',
  figure: 'mean',
  accepts: ['continuous', 'count', 'level'],
  analyse: (input) => {
    const names = comparedNames(input);
    return names.ok ? ok(analysed(input, names.value)) : names;
  },
};

function analysed(input: AnalysisInput, names: readonly string[]): Analysis {
  const { trait, rows, alpha, control } = input;
  const values = figuresOf(rows, trait);
  const own = (name: string) => rows.flatMap((r, i) => (r.treatment === name ? [values[i]!] : []));
  const least = roundingVariance(rows, trait);
  const mean = (name: string) => own(name).reduce((s, v) => s + v, 0) / own(name).length;
  // The studentized range stands for all pairs at once: nothing is shared out further.
  const { versusControl, pairs } = contrastsOf(names, input, (a, b): Contrast => {
    const pair = gamesHowell(own(a), own(b), names.length, alpha, least);
    return {
      ...{ a, b, scale: 'difference', percent: null },
      estimate: mean(a) - mean(b),
      low: pair?.low ?? null,
      high: pair?.high ?? null,
      p: pair?.p ?? null,
    };
  });
  const alone = names.every((n) => own(n).length === 1);
  return {
    method: 'welch',
    alpha,
    control,
    spread: pairs.some((c) => c.low !== null) ? 'shown' : alone ? 'oneEach' : 'zero',
    summaries: names.map((n) => summaryOf(n, own(n), alpha)),
    versusControl,
    pairs,
    assumptions: [
      { what: 'units independent of each other', holds: null, seen: 'by the layout, not by the values' },
      { what: 'roughly normal', holds: null, seen: `${rows.length} units are too few to tell` },
    ],
    unitSd: null,
    smallPrint: `Means on ${rows.length} values, one a unit, a spread of its own for each contender; every pair by Games and Howell (1976)${inBlocks(rows) ? '; blocks aren’t taken off' : ''}.`,
  };
}
