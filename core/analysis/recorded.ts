import type { Trait } from '../model/plan';
import type { AnalysisRow } from './analysis';

/** Decimals a figure was written with. @example decimalsOf(12.25) // 2 */
function decimalsOf(value: number): number {
  const [head, power = '0'] = String(value).split('e') as [string, string?];
  return Math.max(0, (head.split('.')[1]?.length ?? 0) - Number(power));
}

/**
 * Variance that rounding alone gives a unit's figure: values written in steps of s scatter by s²/12 (Sheppard
 * 1898) even where nature doesn't. A residual below it isn't spread that was seen.
 *
 * The step is the finest decimal among the values; k of n, events and words have none.
 *
 * @param trait how its visits make one figure: added, the last one, or over time (then as of the last, which is more)
 */
export function roundingVariance(rows: readonly AnalysisRow[], { summary }: Pick<Trait, 'summary'>): number {
  // A growth rate is made of logarithms: steps of the value say nothing simple of it.
  if (summary === 'growth') return 0;
  const figures = rows.flatMap((r) =>
    r.visits.flatMap((v) =>
      v.samples.flatMap(({ observed: o }) =>
        o.type === 'continuous' ? [o.value] : o.type === 'level' ? [o.level] : [],
      ),
    ),
  );
  if (figures.length === 0) return 0;
  const step = 10 ** -Math.max(...figures.map(decimalsOf));
  const perUnit = rows.map((r) => {
    const visits = summary === 'sum' ? r.visits : r.visits.slice(-1);
    return visits.reduce((s, v) => s + 1 / Math.max(1, v.samples.length), 0) / r.divisor ** 2;
  });
  return (step ** 2 / 12) * (perUnit.reduce((s, x) => s + x, 0) / perUnit.length);
}
