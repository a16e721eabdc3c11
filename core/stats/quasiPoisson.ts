import { solve } from './solve';

/** A count of one unit, with what it stands in. */
export interface CountRow {
  treatment: number;
  block: number;
  count: number;
  /** plants, m² … the count is of */
  exposure: number;
}

export interface QuasiPoisson {
  /** Pearson's χ²/df; null without residual degrees of freedom */
  dispersion: number | null;
  df: number;
  /** logarithm of one treatment's rate as a multiple of another's */
  logRatio: (a: number, b: number) => number;
  /** its variance, dispersion not yet in it */
  variance: (a: number, b: number) => number;
}

const STEPS = 60;
/** Steps go on until no coefficient moves by more than rounding does. */
const SETTLED = 1e-11;

/**
 * Log-linear model of counts on treatment and block with exposure as an offset, by iteratively reweighted least squares;
 * its spread is Pearson's (Wedderburn 1974; McCullagh and Nelder 1989).
 *
 * @param rows every treatment with a total above 0
 * @returns null where it doesn't settle, or where treatment and block can't be told apart
 * @example quasiPoisson([{ treatment: 0, block: 0, count: 2, exposure: 1 }, { treatment: 1, block: 0, count: 4, exposure: 1 }], 2, 1)!.logRatio(1, 0) // ln 2
 */
export function quasiPoisson(
  rows: readonly CountRow[],
  treatments: number,
  blocks: number,
): QuasiPoisson | null {
  const width = treatments + blocks - 1;
  // One column each: treatments, then blocks but the first.
  const columnsOf = (r: CountRow) => [r.treatment, ...(r.block > 0 ? [treatments + r.block - 1] : [])];
  let eta = rows.map((r) => Math.log(Math.max(r.count, 0.1)));
  let beta = new Array<number>(width).fill(0);
  let information: number[][] = [];
  let settled = false;
  for (let step = 0; step < STEPS && !settled; step++) {
    information = Array.from({ length: width }, () => new Array<number>(width).fill(0));
    const right = new Array<number>(width).fill(0);
    rows.forEach((r, i) => {
      const mu = Math.exp(eta[i]!);
      const z = eta[i]! - Math.log(r.exposure) + (r.count - mu) / mu;
      for (const c of columnsOf(r)) {
        right[c]! += mu * z;
        for (const d of columnsOf(r)) information[c]![d]! += mu;
      }
    });
    const solved = solve(information, right);
    if (solved === null || solved.some((b) => !Number.isFinite(b))) return null;
    settled = solved.every((b, i) => Math.abs(b - beta[i]!) <= SETTLED * Math.max(1, Math.abs(b)));
    beta = solved;
    eta = rows.map((r) => columnsOf(r).reduce((s, c) => s + beta[c]!, Math.log(r.exposure)));
  }
  if (!settled) return null;
  const df = rows.length - width;
  const chi = rows.reduce((s, r, i) => s + (r.count - Math.exp(eta[i]!)) ** 2 / Math.exp(eta[i]!), 0);
  const inverse = Array.from({ length: width }, (_, j) =>
    solve(
      information,
      Array.from({ length: width }, (_, i) => Number(i === j)),
    ),
  );
  if (inverse.some((column) => column === null)) return null;
  const v = (i: number, j: number) => inverse[j]![i]!;
  return {
    dispersion: df > 0 ? chi / df : null,
    df,
    logRatio: (a, b) => beta[a]! - beta[b]!,
    variance: (a, b) => v(a, a) + v(b, b) - 2 * v(a, b),
  };
}
