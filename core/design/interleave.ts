import { type Result, err, ok } from '../model/result';
import { type LayoutError, type LayoutInput, type PlacedCell, layoutProblem } from './randomise';

/**
 * Systematic interleave: A B C A B C … along the rows, one row after the other. Nothing is left to chance, so a
 * gradient that runs with the rhythm favours one treatment, and there are no blocks: what stands beside what follows
 * from the rhythm, and the analysis takes nothing off for it.
 *
 * @example interleaved({ treatments: ['A', 'B'], replicates: 2, cells, seed: 0 }) // A B A B on 1 × 4
 */
export function interleaved<T>(input: LayoutInput<T>): Result<PlacedCell<T>[], LayoutError> {
  const problem = layoutProblem(input);
  if (problem) return err(problem);
  const { treatments, replicates, cells } = input;
  const k = treatments.length;
  return ok(
    cells
      .slice(0, k * replicates)
      .map((cell, i) => ({ ...cell, block: null, treatment: treatments[i % k]! })),
  );
}
