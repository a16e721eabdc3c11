import { type Result, err, ok } from '../model/result';

/** One experimental unit's value in an additive model of treatment and, where there is one, block. */
export interface UnitRow {
  /** index of the treatment, 0 … treatments − 1 */
  treatment: number;
  /** index of the block, 0 … blocks − 1; all 0 where there are no blocks */
  block: number;
  value: number;
}

export interface LinearModel {
  /** treatment means adjusted for blocks (each block counts the same), per treatment */
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
function firstDisconnectedPair(rows: readonly UnitRow[], treatments: number, blocks: number) {
  const parent = Array.from({ length: treatments + blocks }, (_, i) => i);
  const find = (i: number): number => {
    while (parent[i] !== i) i = parent[i]!;
    return i;
  };
  for (const r of rows) parent[find(r.treatment)] = find(treatments + r.block);
  for (let t = 1; t < treatments; t++) if (find(t) !== find(0)) return { a: 0, b: t };
  return null;
}

/**
 * Householder QR of the design matrix, carrying the response along.
 * @returns R (upper triangle, p × p, row major) and Qᵀy (length n)
 */
function householder(columns: Float64Array[], response: Float64Array) {
  const n = response.length;
  const p = columns.length;
  const r = new Float64Array(p * p);
  for (let k = 0; k < p; k++) {
    const v = columns[k]!;
    let norm = 0;
    for (let i = k; i < n; i++) norm += v[i]! * v[i]!;
    norm = Math.sqrt(norm);
    const alpha = v[k]! > 0 ? -norm : norm;
    for (let i = 0; i < k; i++) r[i * p + k] = v[i]!;
    r[k * p + k] = alpha;
    v[k] = v[k]! - alpha;
    let vv = 0;
    for (let i = k; i < n; i++) vv += v[i]! * v[i]!;
    if (vv === 0) continue;
    const reflect = (x: Float64Array) => {
      let dot = 0;
      for (let i = k; i < n; i++) dot += v[i]! * x[i]!;
      const f = (2 * dot) / vv;
      for (let i = k; i < n; i++) x[i] = x[i]! - f * v[i]!;
    };
    for (let j = k + 1; j < p; j++) reflect(columns[j]!);
    reflect(response);
  }
  return { r, qty: response };
}

/** Without blocks the adjusted means are the plain ones; taken directly they keep their last digit. */
function plainMeans(rows: readonly UnitRow[], treatments: number): number[] {
  const sums = Array.from({ length: treatments }, () => ({ total: 0, n: 0 }));
  for (const row of rows) {
    sums[row.treatment]!.total += row.value;
    sums[row.treatment]!.n += 1;
  }
  return sums.map(({ total, n }) => total / n);
}

/**
 * Least-squares fit of value = mean + block + treatment on unit means, for any number of units per
 * treatment and block, missing cells included (type II sums of squares: treatments after blocks).
 *
 * @param rows one row an experimental unit; values should be centred near zero (see `centre`)
 * @param treatments number of treatments, ≥ 2, each with at least one row
 * @param blocks number of blocks, ≥ 1, each with at least one row
 * @returns the fit, or why the treatments can't be compared
 * Source: Searle, Linear Models for Unbalanced Data (1987); QR after Golub and Van Loan (memory).
 * @example fitLinearModel([{treatment:0,block:0,value:1},{treatment:0,block:0,value:3},
 *   {treatment:1,block:0,value:4},{treatment:1,block:0,value:6}], 2, 1) // residualMeanSquare 2, dfResidual 2
 */
export function fitLinearModel(
  rows: readonly UnitRow[],
  treatments: number,
  blocks: number,
): Result<LinearModel, ModelError> {
  if (treatments < 2) return err({ tag: 'tooFewTreatments' });
  const seen = new Set(rows.map((r) => r.treatment));
  for (let t = 0; t < treatments; t++) if (!seen.has(t)) return err({ tag: 'emptyTreatment', treatment: t });
  const split = firstDisconnectedPair(rows, treatments, blocks);
  if (split) return err({ tag: 'disconnected', ...split });

  const n = rows.length;
  const p = blocks + treatments - 1;
  const columns = Array.from({ length: p }, () => new Float64Array(n));
  const response = new Float64Array(n);
  rows.forEach((row, i) => {
    columns[0]![i] = 1;
    if (row.block > 0) columns[row.block]![i] = 1;
    if (row.treatment > 0) columns[blocks + row.treatment - 1]![i] = 1;
    response[i] = row.value;
  });
  const { r, qty } = householder(columns, response);

  const coefficients = new Float64Array(p);
  for (let i = p - 1; i >= 0; i--) {
    let s = qty[i]!;
    for (let j = i + 1; j < p; j++) s -= r[i * p + j]! * coefficients[j]!;
    coefficients[i] = s / r[i * p + i]!;
  }
  let treatmentSumOfSquares = 0;
  for (let i = blocks; i < p; i++) treatmentSumOfSquares += qty[i]! ** 2;
  let residualSumOfSquares = 0;
  for (let i = p; i < n; i++) residualSumOfSquares += qty[i]! ** 2;
  const size = treatmentSumOfSquares + rows.reduce((s, row) => s + row.value ** 2, 0);
  if (residualSumOfSquares <= size * n * Number.EPSILON ** 2 * 16) residualSumOfSquares = 0;

  /** the contrast of coefficients that makes each adjusted mean */
  const contrasts = Array.from({ length: treatments }, (_, t) => {
    const c = new Float64Array(p).fill(0);
    c[0] = 1;
    for (let b = 1; b < blocks; b++) c[b] = 1 / blocks;
    if (t > 0) c[blocks + t - 1] = 1;
    return c;
  });
  /** R⁻ᵀ c, so that the unscaled covariance of two contrasts is a dot product */
  const solved = contrasts.map((c) => {
    const x = new Float64Array(p);
    for (let i = 0; i < p; i++) {
      let s = c[i]!;
      for (let j = 0; j < i; j++) s -= r[j * p + i]! * x[j]!;
      x[i] = s / r[i * p + i]!;
    }
    return x;
  });
  const dot = (a: Float64Array, b: Float64Array) => a.reduce((s, v, i) => s + v * b[i]!, 0);
  const dfResidual = n - p;
  return ok({
    adjustedMeans: blocks === 1 ? plainMeans(rows, treatments) : contrasts.map((c) => dot(c, coefficients)),
    residualMeanSquare: dfResidual > 0 ? residualSumOfSquares / dfResidual : null,
    dfTreatment: treatments - 1,
    dfResidual,
    treatmentSumOfSquares,
    residualSumOfSquares,
    unscaledCovariance: (a, b) => dot(solved[a]!, solved[b]!),
  });
}
