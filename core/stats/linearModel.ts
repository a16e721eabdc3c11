import { type Result, err, ok } from '../model/result';

/** One experimental unit's value in an additive model of treatment and, where there is one, block. */
export interface UnitRow {
  /** index of the treatment, 0 … treatments − 1 */
  treatment: number;
  /** index of the block, 0 … blocks − 1; all 0 where there are no blocks */
  block: number;
  /** index of the column of a Latin square, 0 … columns − 1; left out in other designs */
  column?: number;
  value: number;
}

/** Where a unit stands in the model, before it has a value. */
export type DesignRow = Omit<UnitRow, 'value'>;

/** A model whose design is worked out once and fitted to many sets of values. */
export interface PreparedModel {
  /** @param values one a row, in the order of the rows; should be centred near zero */
  fit: (values: ArrayLike<number>) => LinearModel;
  /** how adjusted means and residuals are made of the values; worked out when it is first asked for */
  makers: () => Makers;
}

/** A fit is linear in its values: what each row adds to what. */
interface Makers {
  /** adjusted mean of a treatment: the values, each times its weight */
  means: readonly Float64Array[];
  /** residual of a row: the values, each times its weight (symmetric, 1 less the leverage on the diagonal) */
  residuals: readonly Float64Array[];
}

export interface LinearModel {
  /** treatment means adjusted for blocks and columns (each counts the same), per treatment */
  adjustedMeans: number[];
  /** residual mean square; null when there is no residual */
  residualMeanSquare: number | null;
  dfTreatment: number;
  dfResidual: number;
  /** treatment sum of squares after blocks */
  treatmentSumOfSquares: number;
  residualSumOfSquares: number;
  /** covariance of two adjusted means divided by the residual variance */
  unscaledCovariance: (a: number, b: number) => number;
}

export type ModelError =
  | { tag: 'tooFewTreatments' }
  | { tag: 'emptyTreatment'; treatment: number }
  /** the treatments fall into groups that never share a block, so they can't be compared */
  | { tag: 'disconnected'; a: number; b: number };

/** Groups of treatments linked by common blocks; a comparison is possible only inside one group. */
function firstDisconnectedPair(rows: readonly DesignRow[], treatments: number, blocks: number) {
  const parent = Array.from({ length: treatments + blocks }, (_, i) => i);
  const find = (i: number): number => {
    while (parent[i] !== i) i = parent[i]!;
    return i;
  };
  for (const r of rows) parent[find(r.treatment)] = find(treatments + r.block);
  for (let t = 1; t < treatments; t++) if (find(t) !== find(0)) return { a: 0, b: t };
  return null;
}

interface Reflection {
  v: Float64Array;
  /** 2 / vᵀv */
  factor: number;
  /** row of the triangle it makes */
  pivot: number;
}

function reflect({ v, factor, pivot }: Reflection, x: Float64Array): void {
  let dot = 0;
  for (let i = pivot; i < x.length; i++) dot += v[i]! * x[i]!;
  const f = factor * dot;
  for (let i = pivot; i < x.length; i++) x[i] = x[i]! - f * v[i]!;
}

/**
 * Householder QR of the design matrix; columns that earlier ones make up already are left out.
 * @returns the reflections, the kept columns, and R (upper triangle of the kept columns, row major)
 */
function householder(columns: readonly Float64Array[], n: number) {
  const reflections: Reflection[] = [];
  const pivots: number[] = [];
  const upper: Float64Array[] = [];
  columns.forEach((column, j) => {
    const x = column.slice();
    for (const h of reflections) reflect(h, x);
    const pivot = reflections.length;
    let norm = 0;
    for (let i = pivot; i < n; i++) norm += x[i]! * x[i]!;
    norm = Math.sqrt(norm);
    const size = Math.sqrt(column.reduce((s, v) => s + v * v, 0));
    if (norm <= 1e-9 * size) return;
    const alpha = x[pivot]! > 0 ? -norm : norm;
    const v = x.slice();
    v[pivot] = v[pivot]! - alpha;
    let vv = 0;
    for (let i = pivot; i < n; i++) vv += v[i]! * v[i]!;
    reflections.push({ v, factor: 2 / vv, pivot });
    x[pivot] = alpha;
    upper.push(x);
    pivots.push(j);
  });
  const p = pivots.length;
  const r = new Float64Array(p * p);
  upper.forEach((x, j) => {
    for (let i = 0; i <= j; i++) r[i * p + j] = x[i]!;
  });
  return { reflections, kept: pivots, r };
}

/** Without blocks the adjusted means are the plain ones; taken directly they keep their last digit. */
function plainMeans(rows: readonly DesignRow[], values: ArrayLike<number>, treatments: number): number[] {
  const total = new Array<number>(treatments).fill(0);
  const count = new Array<number>(treatments).fill(0);
  for (let i = 0; i < rows.length; i++) {
    total[rows[i]!.treatment]! += values[i]!;
    count[rows[i]!.treatment]! += 1;
  }
  return total.map((t, i) => t / count[i]!);
}

/**
 * Works out the design of value = mean + block + column + treatment once, to be fitted to many values.
 *
 * @param rows one row an experimental unit
 * @param treatments number of treatments, ≥ 2, each with at least one row
 * @param blocks number of blocks (rows of a Latin square), ≥ 1, each with at least one row
 * @param columns number of columns of a Latin square; 1 in other designs
 * @returns the prepared model, or why the treatments can't be compared
 */
export function prepareLinearModel(
  rows: readonly DesignRow[],
  treatments: number,
  blocks: number,
  columns = 1,
): Result<PreparedModel, ModelError> {
  if (treatments < 2) return err({ tag: 'tooFewTreatments' });
  const seen = new Set(rows.map((r) => r.treatment));
  for (let t = 0; t < treatments; t++) if (!seen.has(t)) return err({ tag: 'emptyTreatment', treatment: t });
  const split = firstDisconnectedPair(rows, treatments, blocks);
  if (split) return err({ tag: 'disconnected', ...split });

  const n = rows.length;
  const firstColumn = blocks;
  const firstTreatment = blocks + columns - 1;
  const design = Array.from({ length: firstTreatment + treatments - 1 }, () => new Float64Array(n));
  rows.forEach((row, i) => {
    design[0]![i] = 1;
    if (row.block > 0) design[row.block]![i] = 1;
    if (row.column) design[firstColumn + row.column - 1]![i] = 1;
    if (row.treatment > 0) design[firstTreatment + row.treatment - 1]![i] = 1;
  });
  const { reflections, kept, r } = householder(design, n);
  const p = kept.length;
  for (let t = 1; t < treatments; t++) {
    if (!kept.includes(firstTreatment + t - 1)) return err({ tag: 'disconnected', a: 0, b: t });
  }
  const treatmentsFrom = p - (treatments - 1);

  /** the contrast of coefficients that makes each adjusted mean */
  const contrasts = Array.from({ length: treatments }, (_, t) =>
    Float64Array.from(kept, (j) =>
      j === 0
        ? 1
        : j < firstColumn
          ? 1 / blocks
          : j < firstTreatment
            ? 1 / columns
            : j === firstTreatment + t - 1
              ? 1
              : 0,
    ),
  );
  /** R⁻ᵀ c: an adjusted mean is its dot product with Qᵀy, a covariance that of two of them */
  const solved = contrasts.map((c) => {
    const x = new Float64Array(p);
    for (let i = 0; i < p; i++) {
      let s = c[i]!;
      for (let j = 0; j < i; j++) s -= r[j * p + i]! * x[j]!;
      x[i] = s / r[i * p + i]!;
    }
    return x;
  });
  const dot = (a: Float64Array, b: Float64Array) => {
    let s = 0;
    for (let i = 0; i < p; i++) s += a[i]! * b[i]!;
    return s;
  };
  const covariance = solved.map((a) => solved.map((b) => dot(a, b)));
  const dfResidual = n - p;
  const blocked = blocks > 1 || columns > 1;
  let makers: Makers | null = null;
  const made = (): Makers => {
    const rotated = rows.map((_, i) => {
      const one = new Float64Array(n);
      one[i] = 1;
      for (const h of reflections) reflect(h, one);
      return one;
    });
    return {
      means: solved.map((c) => Float64Array.from(rotated, (q) => dot(c, q))),
      residuals: rotated.map((a) =>
        Float64Array.from(rotated, (b) => {
          let s = 0;
          for (let i = p; i < n; i++) s += a[i]! * b[i]!;
          return s;
        }),
      ),
    };
  };

  return ok({
    makers: () => (makers ??= made()),
    fit: (values) => {
      const qty = Float64Array.from(values);
      for (const h of reflections) reflect(h, qty);
      let treatmentSumOfSquares = 0;
      for (let i = treatmentsFrom; i < p; i++) treatmentSumOfSquares += qty[i]! ** 2;
      let residualSumOfSquares = 0;
      for (let i = p; i < n; i++) residualSumOfSquares += qty[i]! ** 2;
      let size = treatmentSumOfSquares;
      for (let i = 0; i < n; i++) size += values[i]! ** 2;
      if (residualSumOfSquares <= size * n * Number.EPSILON ** 2 * 16) residualSumOfSquares = 0;
      return {
        adjustedMeans: blocked ? solved.map((c) => dot(c, qty)) : plainMeans(rows, values, treatments),
        residualMeanSquare: dfResidual > 0 ? residualSumOfSquares / dfResidual : null,
        dfTreatment: treatments - 1,
        dfResidual,
        treatmentSumOfSquares,
        residualSumOfSquares,
        unscaledCovariance: (a, b) => covariance[a]![b]!,
      };
    },
  });
}

/**
 * Least-squares fit of value = mean + block + column + treatment on unit means, for any number of units
 * per treatment and block, missing cells included (type II sums of squares: treatments after blocks).
 *
 * @param rows one row an experimental unit; values should be centred near zero (see `centre`)
 * @param treatments number of treatments, ≥ 2, each with at least one row
 * @param blocks number of blocks, ≥ 1, each with at least one row
 * @param columns number of columns of a Latin square; 1 in other designs
 * @returns the fit, or why the treatments can't be compared
 * Source: Searle, Linear Models for Unbalanced Data (1987); QR after Golub and Van Loan (memory).
 * @example fitLinearModel([{treatment:0,block:0,value:1},{treatment:0,block:0,value:3},
 *   {treatment:1,block:0,value:4},{treatment:1,block:0,value:6}], 2, 1) // residualMeanSquare 2, dfResidual 2
 */
export function fitLinearModel(
  rows: readonly UnitRow[],
  treatments: number,
  blocks: number,
  columns = 1,
): Result<LinearModel, ModelError> {
  const prepared = prepareLinearModel(rows, treatments, blocks, columns);
  return prepared.ok ? ok(prepared.value.fit(rows.map((row) => row.value))) : prepared;
}
