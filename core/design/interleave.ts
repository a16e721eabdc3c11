import { type Result, err, ok } from '../model/result';
import { type LayoutError, type LayoutInput, type PlacedCell, layoutProblem } from './randomise';

/**
 * Systematic interleave: A B C A B C … row by row. Nothing is left to chance, so a gradient that runs with
 * the rhythm favours one treatment; where the rhythm would put a treatment into whole columns, each turn
 * starts one further on.
 *
 * @returns each run of all treatments is a block
 * @example interleaved({ treatments: ['A', 'B'], replicates: 2, cells, seed: 0 }) // A B / B A on 2 × 2
 */
export function interleaved<T>(input: LayoutInput<T>): Result<PlacedCell<T>[], LayoutError> {
  const problem = layoutProblem(input);
  if (problem) return err(problem);
  const { treatments, replicates, cells } = input;
  const k = treatments.length;
  const perRow = new Map<string, number>();
  for (const c of cells) {
    const row = `${c.area}/${c.row}`;
    perRow.set(row, (perRow.get(row) ?? 0) + 1);
  }
  const inStep = k > 1 && [...perRow.values()].some((n) => n % k === 0);
  return ok(
    cells.slice(0, k * replicates).map((cell, i) => {
      const turn = Math.floor(i / k);
      return { ...cell, block: turn + 1, treatment: treatments[(i + (inStep ? turn : 0)) % k]! };
    }),
  );
}
