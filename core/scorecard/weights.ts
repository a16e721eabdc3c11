import { wholePercents } from '../quantity/percents';
import { type Points, scorecard } from './scorecard';

/** Which of two headings matters more to the reviewer. */
export interface Preferred {
  a: string;
  b: string;
  /** null: both alike */
  more: 'a' | 'b' | null;
}

/** Every two of the headings, in their order. @example pairsOf(['x', 'y', 'z']) // three pairs */
export const pairsToAsk = (headings: readonly string[]): { a: string; b: string }[] =>
  headings.flatMap((a, i) => headings.slice(i + 1).map((b) => ({ a, b })));

/**
 * Weights from “which matters more?”: a point for being a heading, two for each pair that is won, one each for a pair
 * that is level (common practice), as whole per cents that add up to 100.
 *
 * @example weightsByPairs(['yield', 'cost'], [{ a: 'yield', b: 'cost', more: 'a' }]) // yield 75, cost 25
 */
export function weightsByPairs(
  headings: readonly string[],
  answers: readonly Preferred[],
): Map<string, number> {
  const points = new Map(headings.map((h) => [h, 1]));
  const add = (h: string, n: number) => points.has(h) && points.set(h, points.get(h)! + n);
  for (const { a, b, more } of answers) {
    if (more === null) [a, b].forEach((h) => add(h, 1));
    else add(more === 'a' ? a : b, 2);
  }
  const whole = wholePercents(headings.map((h) => points.get(h)!));
  return new Map(headings.map((h, i) => [h, whole[i]!]));
}

/** A place on the map of two weights. */
export interface MapCell {
  /** shares of 1 of the two headings; the others share what is left, in their proportions */
  x: number;
  y: number;
  /** who leads there; null where two or more are level */
  leader: string | null;
}

/**
 * Who leads for every share of two headings, the others kept in proportion.
 *
 * @param points each contender's, in the order of the weights
 * @param of the two headings, by their place in the weights
 * @param steps cells along a side; a cell is judged at its middle
 * @returns cells whose shares add up to no more than 1; where the others weigh nothing, those on the line x + y = 1
 */
export function weightsMap(
  weights: readonly number[],
  points: readonly Points[],
  [a, b]: readonly [number, number],
  steps = 20,
): MapCell[] {
  const others = weights.map((w, i) => (i === a || i === b ? 0 : w));
  const rest = others.reduce((s, w) => s + w, 0);
  const leaderAt = (x: number, y: number): string | null => {
    const left = 1 - x - y;
    const at = weights.map((_, i) => (i === a ? x : i === b ? y : rest > 0 ? (left * others[i]!) / rest : 0));
    const made = scorecard(
      at.map((weight, i) => ({ name: String(i), weight: Math.max(0, weight) })),
      points,
    );
    const first = made.ok ? made.value.contenders.filter((c) => c.place === 1) : [];
    return first.length === 1 ? first[0]!.name : null;
  };
  const middles = Array.from({ length: steps }, (_, i) => (i + 0.5) / steps);
  if (rest <= 0) return middles.map((x) => ({ x, y: 1 - x, leader: leaderAt(x, 1 - x) }));
  return middles.flatMap((x) =>
    middles.flatMap((y) => (x + y < 1 ? [{ x, y, leader: leaderAt(x, y) }] : [])),
  );
}
