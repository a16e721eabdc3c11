import type { Errors } from './contrast';
import type { PreparedModel, UnitRow } from './linearModel';
import { mean } from './moments';

/** Fewer units than so many show no spread of their own (practice). */
const LEAST_UNITS = 3;
/** Above so many units in blocks working it out takes too long, and one spread is taken for all. */
const MOST_IN_BLOCKS = 120;

/**
 * Degrees of freedom rounded down, to whole ones from ten on, halves from three on, else tenths: critical values are then
 * known for the next trial too. @example steppedDown(9.87) // 9.5
 */
export function steppedDown(df: number): number {
  const step = df >= 10 ? 1 : df >= 3 ? 0.5 : 0.1;
  return Math.max(1, Math.floor(df / step + 1e-6) * step);
}

/** What residuals of treatments have to do with each other, by the design alone. */
interface Design {
  of: readonly number[];
  /** Σ of the residual makers' diagonal over each treatment */
  trace: readonly number[];
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
    left: (t, u, g, h) => (t === u && g === h && t === g ? free[t]! : 0),
  };
}

function designOf(model: PreparedModel, of: readonly number[], k: number): Design {
  const known = designs.get(model);
  if (known) return known;
  const { residuals: m } = model.makers();
  const n = of.length;
  const trace = new Array<number>(k).fill(0);
  const left = new Float64Array(k ** 4);
  const shares = new Float64Array(k);
  for (let i = 0; i < n; i++) {
    trace[of[i]!]! += m[i]![i]!;
    for (let j = 0; j < n; j++) {
      const [g, h] = [of[i]!, of[j]!];
      shares.fill(0);
      for (let x = 0; x < n; x++) shares[of[x]!]! += m[i]![x]! * m[x]![j]!;
      for (let t = 0; t < k; t++)
        for (let u = 0; u < k; u++) left[((t * k + u) * k + g) * k + h]! += shares[t]! * shares[u]!;
    }
  }
  const design: Design = { of, trace, left: (t, u, g, h) => left[((t * k + u) * k + g) * k + h]! };
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

/**
 * How each treatment's variance is made of the sums of squares of all: the base's of its own; another's half of its own and
 * half of what the others but the base share, of one alone its own. Of too few units all speak.
 */
function leaning({ of, trace }: Design, base: number | null): number[][] {
  const k = trace.length;
  const all = Array.from({ length: k }, (_, t) => t);
  const units = (t: number) => of.filter((x) => x === t).length;
  const pooled = (ts: readonly number[]) => {
    const whole = ts.reduce((s, t) => s + trace[t]!, 0);
    return all.map((t) => (ts.includes(t) && whole > 1e-9 ? 1 / whole : 0));
  };
  const known = (line: readonly number[]) => line.some((w) => w > 0);
  return all.map((t) => {
    const [own, others] = [pooled([t]), pooled(all.filter((o) => o !== t && o !== base))];
    if (units(t) < LEAST_UNITS) return pooled(all);
    return t === base || !known(others) ? own : own.map((w, i) => (w + others[i]!) / 2);
  });
}

/**
 * Errors of adjusted means where contenders needn't be alike in spread, by a rule fixed beforehand: what all others are
 * held against has a spread of its own; a contender's is half its own and half the others' (a spread of three or four units
 * alone says little). Degrees of freedom are Satterthwaite's (1946), of two groups without blocks Welch's; in blocks the
 * residuals of each treatment stand for its errors (as in HC2, MacKinnon and White 1985; Bell and McCaffrey 2002).
 *
 * Simulated (`docs/truth.md`): it holds the level about where spreads differ threefold, at some cost in what is seen where
 * they don't.
 *
 * @param base the treatment all others are held against; null among equals
 * @returns null where that can't be worked out, or a spread comes out at nothing: the residual mean square is the error then
 * @example ownSpreads(model, rows, 2, 0)?.df(1, 0) // Welch's, of two treatments without blocks
 */
export function ownSpreads(
  model: PreparedModel,
  rows: readonly UnitRow[],
  treatments: number,
  base: number | null,
): Errors | null {
  const blocked = rows.some((r) => r.block > 0 || (r.column ?? 0) > 0);
  if (blocked && rows.length > MOST_IN_BLOCKS) return null;
  const of = rows.map((r) => r.treatment);
  const design = blocked ? designOf(model, of, treatments) : plainDesign(of, treatments);
  const squares = blocked
    ? squaresBy(model.makers().residuals, rows, treatments)
    : plainSquares(rows, treatments);
  const lines = leaning(design, base);
  const variance = lines.map((line) => line.reduce((s, w, t) => s + w * squares[t]!, 0));
  const total = squares.reduce((s, x) => s + x, 0);
  if (variance.some((v) => !(v > 1e-12 * total))) return null;
  // How the sums of squares vary together.
  const shared = lines.map((_, g) =>
    lines.map((_l, h) => {
      let s = 0;
      for (let t = 0; t < treatments; t++)
        for (let u = 0; u < treatments; u++) s += variance[t]! * variance[u]! * design.left(t, u, g, h);
      return s;
    }),
  );
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
      return of.reduce((s, t, i) => s + x[i]! * y[i]! * variance[t]!, 0);
    },
    df: (a, b) => {
      const key = a < b ? `${a}/${b}` : `${b}/${a}`;
      const known = freedom.get(key);
      if (known !== undefined) return known;
      const parts = new Array<number>(treatments).fill(0);
      taken(a, b).forEach((c, i) => (parts[of[i]!]! += c ** 2));
      // How much of each sum of squares stands in the variance of the difference.
      const weights = lines.map((_, t) => lines.reduce((s, line, g) => s + parts[g]! * line[t]!, 0));
      const whole = parts.reduce((s, c, t) => s + c * variance[t]!, 0);
      const spread = weights.reduce(
        (s, w, g) => s + weights.reduce((q, v, h) => q + w * v * shared[g]![h]!, 0),
        0,
      );
      const df = steppedDown(whole ** 2 / spread);
      freedom.set(key, df);
      return df;
    },
  };
}
