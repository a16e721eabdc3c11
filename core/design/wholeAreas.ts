import { type Result, err, ok } from '../model/result';
import { seededRandom } from '../stats/random';
import type { Cell, LayoutError, LayoutInput, PlacedCell } from './randomise';

/**
 * Contenders over whole areas (tents, tanks), where all that stands in an area gets its product together: every way of handing
 * them out over the areas is equally likely, and each area is filled with its contender.
 *
 * @param input replicates: areas of each contender
 * @returns one placed cell a position of the areas that are needed
 * @example wholeAreas({ treatments: ['A', 'B'], replicates: 2, cells, seed: 1 }) // four tents, two of each
 */
export function wholeAreas<T>({
  treatments,
  replicates,
  cells,
  seed,
}: LayoutInput<T>): Result<PlacedCell<T>[], LayoutError> {
  if (treatments.length === 0) return err({ tag: 'noTreatments' });
  const areas = new Map<string, Cell[]>();
  for (const c of cells) areas.set(c.area, [...(areas.get(c.area) ?? []), c]);
  const wanted = treatments.length * replicates;
  if (areas.size < wanted) return err({ tag: 'tooFewAreas', wanted, available: areas.size });
  const order = seededRandom(seed).shuffle(treatments.flatMap((t) => Array<T>(replicates).fill(t)));
  const usedAreas = [...areas.values()].slice(0, wanted);
  return ok(usedAreas.flatMap((own, i) => own.map((c) => ({ ...c, block: null, treatment: order[i]! }))));
}
