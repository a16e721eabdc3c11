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
