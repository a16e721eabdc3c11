import { mean } from './moments';
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
  /** the same as it was seen, below 1 too; null where nothing shows it */
  seen: number | null;
}

/** A unit's k of n with its group and block. */
interface PlacedKOfN extends KOfN {
  group: number;
  block: string;
  /** of a Latin square; left out elsewhere */
  column?: string;
}

/** Fewer degrees of freedom than so many aren't spent on blocks and columns: scatter is then taken over all (practice). */
const LEAST_INSIDE = 6;

/**
 * The scatter that tests of pooled proportions lean on: Pearson's residuals of the units, blocks and columns taken off, squared, over
 * their degrees of freedom. Groups of which hardly any unit can be expected to have one that did, or one that didn't, show
 * next to nothing of it and don't count, unless there are no others (practice).
 *
 * @example scatterOf([{ k: 5, n: 10, group: 0, block: '' }, { k: 3, n: 10, group: 0, block: '' }]) // { spread: 1, df: 1, seen: 0.833… }
 */
export function scatterOf(units: readonly PlacedKOfN[]): Scatter {
  const own = (group: number) => units.filter((u) => u.group === group);
  const groups = [...new Set(units.map((u) => u.group))];
  const telling = groups.filter((g) => {
    const { k, n } = pooledCounts(own(g));
    return Math.min(k, n - k) >= own(g).length;
  });
  const kept = units.filter((u) => u.n > 0 && (telling.length === 0 || telling.includes(u.group)));
  const lines = (of: (u: PlacedKOfN) => string) => [...new Set(units.map(of))];
  const [blocks, columns] = [lines((u) => u.block), lines((u) => u.column ?? '')];
  const within = blocks.length + columns.length - 2;
  const free = kept.length - (telling.length || groups.length);
  const inside = free - within >= LEAST_INSIDE;
  const df = free - (inside ? within : 0);
  if (telling.length === 0) return { spread: 1, df, seen: null };
  const residual = kept.map((u) => {
    const { k, n } = pooledCounts(own(u.group));
    const p = k / n;
    return (u.k - u.n * p) / Math.sqrt(u.n * p * (1 - p));
  });
  const off = (of: (u: PlacedKOfN) => string, names: readonly string[]) => {
    if (!inside || names.length < 2) return;
    const middle = new Map(
      names.map((name) => [name, mean(residual.filter((_, i) => of(kept[i]!) === name))]),
    );
    kept.forEach((u, i) => (residual[i]! -= middle.get(of(u))!));
  };
  off((u) => u.block, blocks);
  off((u) => u.column ?? '', columns);
  const squares = residual.reduce((s, r) => s + r ** 2, 0);
  const seen = df > 0 ? squares / df : null;
  return { spread: Math.max(1, seen ?? 1), df, seen };
}
