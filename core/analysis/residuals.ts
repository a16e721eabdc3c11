import { type UnitRow, prepareLinearModel } from '../stats/linearModel';
import type { AnalysisRow } from './analysis';

/** A unit's value less what its contender, block and column let one expect. */
export interface Residual {
  unit: string;
  residual: number;
  /** in its own standard errors; null where nothing is left over */
  studentized: number | null;
}

/**
 * Residuals of the additive model of contender and block.
 * @param values one a row, what is compared
 * @returns residual degrees of freedom too; null where the model can't be fitted
 */
export function residualsOf(
  rows: readonly AnalysisRow[],
  values: readonly number[],
): { df: number; residuals: Residual[] } | null {
  const names = [...new Set(rows.map((r) => r.treatment))];
  const blocks = [...new Set(rows.map((r) => r.block))];
  const columns = [...new Set(rows.map((r) => r.column))];
  const design = rows.map((r): Omit<UnitRow, 'value'> => ({
    treatment: names.indexOf(r.treatment),
    block: blocks.indexOf(r.block),
    column: columns.indexOf(r.column),
  }));
  const model = prepareLinearModel(design, names.length, blocks.length, columns.length);
  if (!model.ok) return null;
  const middle = values.reduce((s, v) => s + v, 0) / values.length;
  const fit = model.value.fit(values.map((v) => v - middle));
  const { dfResidual: df, residualMeanSquare: ms } = fit;
  if (df < 1 || ms === null) return null;
  // The fit gives sums of squares alone: a unit's residual is how much less they are without it.
  const residuals = rows.map((r, i): Residual => {
    const alone = Float64Array.from(rows, (_, j) => Number(i === j));
    const free = model.value.fit(alone).residualSumOfSquares;
    const plus = model.value.fit(values.map((v, j) => v - middle + Number(i === j))).residualSumOfSquares;
    // (e + h)ᵀ(e + h) = e² + 2e + free, where free is 1 less the leverage.
    const residual = free <= 1e-9 ? 0 : (plus - fit.residualSumOfSquares - free) / 2;
    return {
      unit: r.unit,
      residual,
      studentized: free <= 1e-9 || ms <= 0 ? null : residual / Math.sqrt(ms * free),
    };
  });
  return { df, residuals };
}
