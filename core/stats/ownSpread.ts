import fCdf from '@stdlib/stats-base-dists-f-cdf';
import type { Errors } from './contrast';
import type { PreparedModel, UnitRow } from './linearModel';
import { mean } from './moments';
import { solve } from './solve';

/** A contender's spread stands out at this level, shared over all contenders (fixed beforehand; found by simulation). */
const STANDS_OUT = 0.3;
/** Fewer units than so many show no spread of their own (practice). */
const LEAST_UNITS = 3;
const LEAST_FREEDOM = 2 - 1e-9;
/** Above so many units in blocks working it out takes too long, and one spread is taken for all. */
const MOST_IN_BLOCKS = 120;

/** What residuals of treatments have to do with each other, by the design alone. */
interface Design {
  of: readonly number[];
  /** Σ of the residual makers' diagonal over each treatment */
  trace: readonly number[];
  /** Σ of their squares over two treatments */
  square: readonly (readonly number[])[];
  /** Σ over i of g, j of h of P_t(i, j)·P_u(i, j), where P_t is what treatment t's errors leave in residuals */
  left: (t: number, u: number, g: number, h: number) => number;
}

const designs = new WeakMap<PreparedModel, Design>();

/** Without blocks a treatment's residuals are made of its own errors alone. */
function plainDesign(of: readonly number[], k: number): Design {
  const free = Array.from({ length: k }, (_, t) => of.filter((x) => x === t).length - 1);
  return {
    of,
    trace: free,
    square: free.map((f, g) => free.map((_, h) => (g === h ? f : 0))),
    left: (t, u, g, h) => (t === u && g === h && t === g ? free[t]! : 0),
  };
}

function designOf(model: PreparedModel, of: readonly number[], k: number): Design {
  const known = designs.get(model);
  if (known) return known;
  const { residuals: m } = model.makers();
  const n = of.length;
  const trace = new Array<number>(k).fill(0);
  const square = Array.from({ length: k }, () => new Array<number>(k).fill(0));
  const left = new Float64Array(k ** 4);
  const shares = new Float64Array(k);
  for (let i = 0; i < n; i++) {
    trace[of[i]!]! += m[i]![i]!;
    for (let j = 0; j < n; j++) {
      const [g, h] = [of[i]!, of[j]!];
      square[g]![h]! += m[i]![j]! ** 2;
      shares.fill(0);
      for (let x = 0; x < n; x++) shares[of[x]!]! += m[i]![x]! * m[x]![j]!;
      for (let t = 0; t < k; t++)
        for (let u = 0; u < k; u++) left[((t * k + u) * k + g) * k + h]! += shares[t]! * shares[u]!;
    }
  }
  const design: Design = { of, trace, square, left: (t, u, g, h) => left[((t * k + u) * k + g) * k + h]! };
  designs.set(model, design);
  return design;
}

/** Sums of squared residuals, by treatment. */
function squaresBy(m: readonly Float64Array[], rows: readonly UnitRow[], k: number): number[] {
  const squares = new Array<number>(k).fill(0);
  for (const [i, line] of m.entries()) {
    let e = 0;
    for (let j = 0; j < rows.length; j++) e += line[j]! * rows[j]!.value;
    squares[rows[i]!.treatment]! += e ** 2;
  }
  return squares;
}

const plainSquares = (rows: readonly UnitRow[], k: number): number[] =>
  Array.from({ length: k }, (_, t) => {
    const values = rows.flatMap((r) => (r.treatment === t ? [r.value] : []));
    const middle = mean(values);
    return values.reduce((s, v) => s + (v - middle) ** 2, 0);
  });

/** Which treatments share a spread: the base has its own, the others one, but for one that stands out. */
function sharing({ trace, square, of }: Design, squares: readonly number[], base: number | null): number[] {
  const k = trace.length;
  const units = (t: number) => of.filter((x) => x === t).length;
  const freedom = (ts: readonly number[]) => {
    const [a, b] = [
      ts.reduce((s, t) => s + trace[t]!, 0),
      ts.reduce((s, t) => s + ts.reduce((q, u) => q + square[t]![u]!, 0), 0),
    ];
    return b > 0 ? a ** 2 / b : 0;
  };
  const size = (ts: readonly number[]) =>
    ts.reduce((s, t) => s + squares[t]!, 0) / ts.reduce((s, t) => s + trace[t]!, 0);
  const own = (t: number, rest: readonly number[]) =>
    units(t) >= LEAST_UNITS && freedom([t]) >= LEAST_FREEDOM && freedom(rest) >= LEAST_FREEDOM;
  const all = Array.from({ length: k }, (_, t) => t);
  const others = all.filter((t) => t !== base);
  const group = new Array<number>(k).fill(0);
  if (base !== null && own(base, others)) group[base] = 1;
  const apart = others.flatMap((t) => {
    const rest = others.filter((o) => o !== t);
    if (rest.length === 0 || !own(t, rest)) return [];
    const below = fCdf(size([t]) / size(rest), freedom([t]), freedom(rest));
    return [{ t, p: 2 * Math.min(below, 1 - below) }];
  });
  const odd = apart.reduce<(typeof apart)[number] | null>((a, b) => (a && a.p <= b.p ? a : b), null);
  if (odd && odd.p < STANDS_OUT / others.length) group[odd.t] = 2;
  return group;
}

/**
 * Errors of adjusted means where contenders needn't be alike in spread, by a rule fixed beforehand: what all others are
 * held against has a spread of its own, the others share one, but for the one whose spread stands out most (F, two-sided,
 * 30 % shared over all), which has its own. Variances are solved for from the residuals of each (Rao's MINQUE); degrees of
 * freedom are Satterthwaite's (1946), of two groups without blocks Welch's.
 *
 * @param base the treatment all others are held against; null among equals
 * @returns null where all share one spread after all, or a spread comes out at nothing: then the residual mean square is
 * the error
 * @example ownSpreads(model, rows, residuals, 0)?.df(1, 0) // Welch's, of two treatments without blocks
 */
export function ownSpreads(
  model: PreparedModel,
  rows: readonly UnitRow[],
  treatments: number,
  base: number | null,
): Errors | null {
  const n = rows.length;
  const blocked = rows.some((r) => r.block > 0 || (r.column ?? 0) > 0);
  if (blocked && n > MOST_IN_BLOCKS) return null;
  const of = rows.map((r) => r.treatment);
  const design = blocked ? designOf(model, of, treatments) : plainDesign(of, treatments);
  const squares = blocked
    ? squaresBy(model.makers().residuals, rows, treatments)
    : plainSquares(rows, treatments);
  const kinds = sharing(design, squares, base);
  const groups = [...new Set(kinds)];
  if (groups.length < 2) return null;
  const at = kinds.map((kind) => groups.indexOf(kind));
  const count = groups.length;
  const table = Array.from({ length: count }, () => new Array<number>(count).fill(0));
  const sums = new Array<number>(count).fill(0);
  for (let t = 0; t < treatments; t++) {
    sums[at[t]!]! += squares[t]!;
    for (let u = 0; u < treatments; u++) table[at[t]!]![at[u]!]! += design.square[t]![u]!;
  }
  const variance = solve(table, sums);
  const total = squares.reduce((s, x) => s + x, 0);
  if (variance === null || variance.some((v) => !(v > 1e-12 * total))) return null;
  // Variance of the sums of squares, and how much of them goes together.
  const shared = Array.from({ length: count }, () => new Array<number>(count).fill(0));
  for (let t = 0; t < treatments; t++)
    for (let u = 0; u < treatments; u++)
      for (let g = 0; g < treatments; g++)
        for (let h = 0; h < treatments; h++)
          shared[at[g]!]![at[h]!]! += variance[at[t]!]! * variance[at[u]!]! * design.left(t, u, g, h);
  const error = rows.map((r) => variance[at[r.treatment]!]!);
  /** what a mean, or a difference of two, takes of each row */
  const taken = (a: number, b: number): Float64Array => {
    if (blocked) {
      const { means } = model.makers();
      return Float64Array.from(rows, (_, i) => means[a]![i]! - (a === b ? 0 : means[b]![i]!));
    }
    const units = (t: number) => of.filter((x) => x === t).length;
    const [own, other] = [1 / units(a), a === b ? 0 : -1 / units(b)];
    return Float64Array.from(of, (t) => (t === a ? own : t === b ? other : 0));
  };
  const freedom = new Map<string, number>();
  return {
    covariance: (a, b) => {
      const [x, y] = [taken(a, a), taken(b, b)];
      return error.reduce((s, e, i) => s + x[i]! * y[i]! * e, 0);
    },
    df: (a, b) => {
      const key = a < b ? `${a}/${b}` : `${b}/${a}`;
      const known = freedom.get(key);
      if (known !== undefined) return known;
      // How much of each variance stands in that of the difference.
      const parts = new Array<number>(count).fill(0);
      taken(a, b).forEach((c, i) => (parts[at[of[i]!]!]! += c ** 2));
      const weights = solve(table, parts)!;
      const whole = parts.reduce((s, c, g) => s + c * variance[g]!, 0);
      const spread = weights.reduce(
        (s, w, g) => s + weights.reduce((q, v, h) => q + w * v * shared[g]![h]!, 0),
        0,
      );
      // Rounded down to a tenth: critical values are then known for the next trial too.
      const df = Math.max(1, Math.floor((whole ** 2 / spread) * 10 + 1e-6) / 10);
      freedom.set(key, df);
      return df;
    },
  };
}
