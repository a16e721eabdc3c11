import type { Result } from '../model/result';
import { err, ok } from '../model/result';
import { seededRandom } from '../stats/random';

/** A place a unit may stand in; rows and columns count from 0. */
export interface Cell {
  area: string;
  row: number;
  column: number;
}

export interface PlacedCell<T> extends Cell {
  /** block, row of a Latin square or main plot, from 1; null where the design has no blocks */
  block: number | null;
  /** column of a Latin square, from 1 */
  columnBlock?: number;
  /** what the main plot was given, in split plots */
  setting?: string;
  treatment: T;
}

export type LayoutError =
  | { tag: 'noTreatments' }
  | { tag: 'tooFewPositions'; wanted: number; available: number }
  /** where all of an area share */
  | { tag: 'tooFewAreas'; wanted: number; available: number }
  /** a Latin square of k treatments takes k units of each, or a multiple */
  | { tag: 'notWholeSquares'; treatments: number; replicates: number }
  /** no k × k positions free in line */
  | { tag: 'noRoomForSquare'; size: number; wanted: number; available: number };

export function describeLayoutError(e: LayoutError): string {
  switch (e.tag) {
    case 'noTreatments':
      return 'There is no treatment to lay out yet; add two in Contenders.';
    case 'tooFewPositions':
      return `${e.wanted} units need ${e.wanted} positions, but the areas hold ${e.available}.`;
    case 'tooFewAreas':
      return `${e.wanted} areas are needed, one contender in each; there are ${e.available}.`;
    case 'notWholeSquares':
      return `A Latin square of ${e.treatments} treatments takes ${e.treatments} units of each, or a multiple; not ${e.replicates}.`;
    case 'noRoomForSquare':
      return `${e.wanted === 1 ? 'A square' : `${e.wanted} squares`} of ${e.size} × ${e.size} free positions ${e.wanted === 1 ? 'is' : 'are'} needed; the areas hold ${e.available}.`;
  }
}

/**
 * The walk through the positions: area by area, row by row, every other row backwards, so that
 * neighbours in the walk are neighbours on the shelf.
 */
export function serpentine<C extends Cell>(cells: readonly C[]): C[] {
  const areas = [...new Set(cells.map((c) => c.area))];
  return areas.flatMap((area) => {
    const here = cells.filter((c) => c.area === area);
    const rows = [...new Set(here.map((c) => c.row))].sort((a, b) => a - b);
    return rows.flatMap((row, i) =>
      here
        .filter((c) => c.row === row)
        .sort((a, b) => (i % 2 === 0 ? a.column - b.column : b.column - a.column)),
    );
  });
}

export interface LayoutInput<T> {
  treatments: readonly T[];
  /** units of each treatment; in blocks: number of blocks */
  replicates: number;
  /** free positions, blocked ones left out */
  cells: readonly Cell[];
  /** whole number, 0 … 2³² − 1 */
  seed: number;
}

/** What keeps units of these treatments from being placed, or null. */
export function layoutProblem(input: LayoutInput<unknown>): LayoutError | null {
  if (input.treatments.length === 0) return { tag: 'noTreatments' };
  const wanted = input.treatments.length * input.replicates;
  return wanted > input.cells.length
    ? { tag: 'tooFewPositions', wanted, available: input.cells.length }
    : null;
}

/**
 * Completely randomised: every way of handing the treatments out over the positions is equally likely.
 * The first positions of the walk are used when there are more than needed.
 * @example completelyRandomised({ treatments: ['A', 'B'], replicates: 2, cells, seed: 1 })
 */
export function completelyRandomised<T>(input: LayoutInput<T>): Result<PlacedCell<T>[], LayoutError> {
  const problem = layoutProblem(input);
  if (problem) return err(problem);
  const { treatments, replicates, seed } = input;
  const all = treatments.flatMap((t) => Array<T>(replicates).fill(t));
  const order = seededRandom(seed).shuffle(all);
  const walk = serpentine(input.cells);
  return ok(order.map((treatment, i) => ({ ...walk[i]!, block: null, treatment })));
}

/**
 * Randomised complete blocks: each block is a run of neighbouring positions that holds every treatment
 * once, in an order drawn afresh for each block.
 */
export function randomisedCompleteBlocks<T>(input: LayoutInput<T>): Result<PlacedCell<T>[], LayoutError> {
  const problem = layoutProblem(input);
  if (problem) return err(problem);
  const { treatments, replicates, seed } = input;
  const random = seededRandom(seed);
  const walk = blockWalk(input.cells, treatments.length, replicates);
  const placed = Array.from({ length: replicates }, (_, b) =>
    random
      .shuffle(treatments)
      .map((treatment, i) => ({ ...walk[b * treatments.length + i]!, block: b + 1, treatment })),
  );
  return ok(placed.flat());
}

/**
 * Positions in block order. Where whole rows hold whole blocks, blocks don't straddle rows: leftover
 * places at a row's end stay free. Otherwise blocks follow the walk.
 */
export function blockWalk(cells: readonly Cell[], size: number, blocks: number): Cell[] {
  const walk = serpentine(cells);
  const rows: Cell[][] = [];
  for (const c of walk) {
    const last = rows[rows.length - 1];
    if (last && last[0]!.area === c.area && last[0]!.row === c.row) last.push(c);
    else rows.push([c]);
  }
  const inRows = rows.flatMap((row) => row.slice(0, row.length - (row.length % size)));
  return inRows.length >= size * blocks ? inRows : walk;
}
