import { type Result, err, ok } from '../model/result';
import { type LayoutError, type LayoutInput, type PlacedCell, blockWalk, layoutProblem } from './randomise';
import { seededRandom } from '../stats/random';

interface SplitPlotInput<T> extends LayoutInput<T> {
  /** what main plots are given (two lamps, two kinds of tank); empty when they are only places */
  settings: readonly string[];
}

/**
 * Split plots: each main plot (a machine, a tank, a level) is a run of neighbouring positions that holds
 * every treatment once in random order. Settings are handed to main plots by chance too, each once in
 * every replicate. Treatments are then compared inside main plots, whatever their setting does.
 *
 * @param input replicates: main plots of each setting, or main plots when there are no settings
 * @returns `block` is the number of the main plot
 * Source: Cochran and Cox, Experimental Designs (1957), chapter 7 (memory).
 */
export function splitPlots<T>(input: SplitPlotInput<T>): Result<PlacedCell<T>[], LayoutError> {
  const { treatments, settings, seed } = input;
  const mainPlots = input.replicates * Math.max(1, settings.length);
  const problem = layoutProblem({ ...input, replicates: mainPlots });
  if (problem) return err(problem);
  const random = seededRandom(seed);
  const given = Array.from({ length: input.replicates }, () => random.shuffle(settings)).flat();
  const walk = blockWalk(input.cells, treatments.length, mainPlots);
  return ok(
    Array.from({ length: mainPlots }, (_, m) =>
      random.shuffle(treatments).map((treatment, i) => ({
        ...walk[m * treatments.length + i]!,
        block: m + 1,
        treatment,
        ...(settings.length > 0 && { setting: given[m]! }),
      })),
    ).flat(),
  );
}
