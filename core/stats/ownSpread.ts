import type { Errors } from './contrast';
import type { DesignRow, PreparedModel } from './linearModel';

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

/** What a design alone says of residuals and means: worked out once, for however many sets of values. */
interface Design {
  blocked: boolean;
  /** treatment of each row */
  of: readonly number[];
  /** rows of each treatment */
  units: readonly number[];
  /** Σ of the residual makers' diagonal over each treatment */
  trace: readonly number[];
  /** Σ over i of g, j of h of P_t(i, j)·P_u(i, j), where P_t is what treatment t's errors leave in residuals */
  left: (t: number, u: number, g: number, h: number) => number;
  /** what two means take of each treatment's rows alike: Σ over its rows of their weights' products */
  parts: (a: number, b: number) => readonly number[];
  /** how each treatment's variance is made, by the base */
  lines: Map<number | null, number[][]>;
}

const designs = new WeakMap<PreparedModel, Design | null>();

/** Without blocks a treatment's residuals and mean are made of its own rows alone. */
function plainDesign(of: readonly number[], k: number): Design {
  const units = new Array<number>(k).fill(0);
  for (const t of of) units[t]! += 1;
  const parts = units.map((n, a) =>
    units.map((_n, b) => units.map((_m, t) => (a === b && t === a ? 1 / n : 0))),
  );
  return {
    ...{ blocked: false, of, units, trace: units.map((n) => n - 1), lines: new Map() },
    left: (t, u, g, h) => (t === u && g === h && t === g ? units[t]! - 1 : 0),
    parts: (a, b) => parts[a]![b]!,
  };
}

function blockedDesign(model: PreparedModel, of: readonly number[], k: number): Design {
  const { residuals: m, means } = model.makers();
  const n = of.length;
  const units = new Array<number>(k).fill(0);
  const trace = new Array<number>(k).fill(0);
  const left = new Float64Array(k ** 4);
  const shares = new Float64Array(k);
  for (let i = 0; i < n; i++) {
    units[of[i]!]! += 1;
    trace[of[i]!]! += m[i]![i]!;
    for (let j = 0; j < n; j++) {
      const [g, h] = [of[i]!, of[j]!];
      shares.fill(0);
      for (let x = 0; x < n; x++) shares[of[x]!]! += m[i]![x]! * m[x]![j]!;
      for (let t = 0; t < k; t++)
        for (let u = 0; u < k; u++) left[((t * k + u) * k + g) * k + h]! += shares[t]! * shares[u]!;
    }
  }
  const parts = means.map((x) =>
    means.map((y) => {
      const by = new Array<number>(k).fill(0);
      for (let i = 0; i < n; i++) by[of[i]!]! += x[i]! * y[i]!;
      return by;
    }),
  );
  return {
    ...{ blocked: true, of, units, trace, lines: new Map() },
    left: (t, u, g, h) => left[((t * k + u) * k + g) * k + h]!,
    parts: (a, b) => parts[a]![b]!,
  };
}

function designOf(model: PreparedModel, rows: readonly DesignRow[], k: number): Design | null {
  let design = designs.get(model);
  if (design === undefined) {
    const of = rows.map((r) => r.treatment);
    const blocked = rows.some((r) => r.block > 0 || (r.column ?? 0) > 0);
    design = !blocked ? plainDesign(of, k) : of.length > MOST_IN_BLOCKS ? null : blockedDesign(model, of, k);
    designs.set(model, design);
  }
  return design;
}

/** Sums of squared residuals, by treatment. */
function squaresBy(
  m: readonly Float64Array[],
  of: readonly number[],
  values: ArrayLike<number>,
  k: number,
): number[] {
  const squares = new Array<number>(k).fill(0);
  for (let i = 0; i < of.length; i++) {
    const line = m[i]!;
    let e = 0;
    for (let j = 0; j < of.length; j++) e += line[j]! * values[j]!;
    squares[of[i]!]! += e * e;
  }
  return squares;
}

function plainSquares({ of, units }: Design, values: ArrayLike<number>): number[] {
  const middle = new Array<number>(units.length).fill(0);
  const squares = new Array<number>(units.length).fill(0);
  for (let i = 0; i < of.length; i++) middle[of[i]!]! += values[i]! / units[of[i]!]!;
  for (let i = 0; i < of.length; i++) squares[of[i]!]! += (values[i]! - middle[of[i]!]!) ** 2;
  return squares;
}

/**
 * How each treatment's variance is made of the sums of squares of all: the base's of its own; another's half of its own and
 * half of what the others but the base share, of one alone its own. Of too few units all speak.
 */
function leaning({ units, trace, lines }: Design, base: number | null): number[][] {
  const known = lines.get(base);
  if (known) return known;
  const all = trace.map((_, t) => t);
  const pooled = (ts: readonly number[]) => {
    const whole = ts.reduce((s, t) => s + trace[t]!, 0);
    return all.map((t) => (ts.includes(t) && whole > 1e-9 ? 1 / whole : 0));
  };
  const made = all.map((t) => {
    const [own, others] = [pooled([t]), pooled(all.filter((o) => o !== t && o !== base))];
    if (units[t]! < LEAST_UNITS) return pooled(all);
    return t === base || !others.some((w) => w > 0) ? own : own.map((w, i) => (w + others[i]!) / 2);
  });
  lines.set(base, made);
  return made;
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
 * @example ownSpreads(model, rows, values, 2, 0)?.df(1, 0) // Welch's, of two treatments without blocks
 */
export function ownSpreads(
  model: PreparedModel,
  rows: readonly DesignRow[],
  values: ArrayLike<number>,
  treatments: number,
  base: number | null,
): Errors | null {
  const design = designOf(model, rows, treatments);
  if (!design) return null;
  const { of, blocked } = design;
  const squares = blocked
    ? squaresBy(model.makers().residuals, of, values, treatments)
    : plainSquares(design, values);
  const lines = leaning(design, base);
  const variance = lines.map((line) => line.reduce((s, w, t) => s + w * squares[t]!, 0));
  const total = squares.reduce((s, x) => s + x, 0);
  if (variance.some((v) => !(v > 1e-12 * total))) return null;
  // How the sums of squares vary together.
  const shared = lines.map(() => new Float64Array(treatments));
  for (let g = 0; g < treatments; g++)
    for (let h = 0; h <= g; h++) {
      let s = 0;
      for (let t = 0; t < treatments; t++) {
        s += variance[t]! ** 2 * design.left(t, t, g, h);
        for (let u = 0; u < t; u++) s += 2 * variance[t]! * variance[u]! * design.left(t, u, g, h);
      }
      shared[g]![h] = shared[h]![g] = s;
    }
  const freedom = new Map<number, number>();
  const covariance = (a: number, b: number): number => {
    const parts = design.parts(a, b);
    let s = 0;
    for (let t = 0; t < treatments; t++) s += parts[t]! * variance[t]!;
    return s;
  };
  const weights = new Float64Array(treatments);
  const freedomOf = (a: number, b: number): number => {
    const [own, other, both] = [design.parts(a, a), design.parts(b, b), design.parts(a, b)];
    // How much of each sum of squares stands in the variance of the difference.
    weights.fill(0);
    let whole = 0;
    for (let g = 0; g < treatments; g++) {
      const part = a === b ? own[g]! : own[g]! + other[g]! - 2 * both[g]!;
      whole += part * variance[g]!;
      for (let t = 0; t < treatments; t++) weights[t]! += part * lines[g]![t]!;
    }
    let spread = 0;
    for (let g = 0; g < treatments; g++)
      for (let h = 0; h < treatments; h++) spread += weights[g]! * weights[h]! * shared[g]![h]!;
    return steppedDown(whole ** 2 / spread);
  };
  return {
    covariance,
    df: (a, b) => {
      const key = a < b ? a * treatments + b : b * treatments + a;
      const known = freedom.get(key);
      if (known !== undefined) return known;
      const df = freedomOf(a, b);
      freedom.set(key, df);
      return df;
    },
  };
}
