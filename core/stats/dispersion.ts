import type { KOfN } from './proportionPermutation';

/** k and n of several units together. */
export const pooledCounts = (units: readonly KOfN[]): KOfN => ({
  k: units.reduce((s, u) => s + u.k, 0),
  n: units.reduce((s, u) => s + u.n, 0),
});

/**
 * How much more units of one cell scatter than cuttings drawn one by one would: Pearson's χ² over its degrees of
 * freedom. 1 is the binomial's own scatter.
 *
 * @param cells units of one treatment (in one stratum) each
 * @returns null without a degree of freedom
 * @example dispersion([[{ k: 5, n: 5 }, { k: 0, n: 5 }]]) // 10
 */
export function dispersion(cells: readonly (readonly KOfN[])[]): number | null {
  let [chiSquare, df] = [0, 0];
  for (const cell of cells) {
    const { k, n } = pooledCounts(cell);
    df += Math.max(0, cell.length - 1);
    if (k === 0 || k === n) continue;
    const p = k / n;
    for (const unit of cell) if (unit.n > 0) chiSquare += (unit.k - unit.n * p) ** 2 / (unit.n * p * (1 - p));
  }
  return df > 0 ? chiSquare / df : null;
}

/** How much more units scatter than single ones drawn by lot, 1 at least, and from how many degrees of freedom. */
export interface Scatter {
  spread: number;
  df: number;
}

/**
 * The scatter that tests of pooled proportions lean on. Groups of which hardly any unit can be expected to have one that
 * did, or one that didn't, show next to nothing of it and don't count, unless there are no others (practice).
 *
 * @param groups units of one treatment each
 * @example scatterOf([[{ k: 5, n: 10 }, { k: 3, n: 10 }], [{ k: 10, n: 10 }, { k: 10, n: 10 }]]).df // 1
 */
export function scatterOf(groups: readonly (readonly KOfN[])[]): Scatter {
  const telling = groups.filter((units) => {
    const { k, n } = pooledCounts(units);
    return Math.min(k, n - k) >= units.length;
  });
  const df = (list: typeof groups) => list.reduce((s, units) => s + Math.max(0, units.length - 1), 0);
  if (df(telling) === 0) return { spread: 1, df: df(groups) };
  return { spread: Math.max(1, dispersion(telling)!), df: df(telling) };
}
