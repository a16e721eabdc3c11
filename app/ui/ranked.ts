/** A thing in an order, best first. */
export interface Ranked {
  id: string;
  /** shares the place of the one above */
  tied: boolean;
}

/** Places of an order, ties sharing the first of theirs. @example places of A, B = A, C: 1, 1, 3 */
export function placesOf(order: readonly Ranked[]): number[] {
  const places: number[] = [];
  order.forEach((r, i) => places.push(r.tied && i > 0 ? places[i - 1]! : i + 1));
  return places;
}

/** The order with one thing moved to a place, counted from 0; it leaves its ties. */
export function movedTo(order: readonly Ranked[], id: string, to: number): Ranked[] {
  const from = order.findIndex((r) => r.id === id);
  if (from < 0 || to < 0 || to >= order.length || from === to) return [...order];
  // Who was tied with it stays tied with who stood above it, or stands first now.
  const left = order.filter((r) => r.id !== id);
  const below = order[from + 1];
  const freed = left.map((r) => (r === below && r.tied && !order[from]!.tied ? { ...r, tied: false } : r));
  const moved = [...freed.slice(0, to), { id, tied: false }, ...freed.slice(to)];
  return moved.map((r, i) => (i === 0 ? { ...r, tied: false } : r));
}

/** The order with one thing sharing the place of the one above, or not any more. */
export const tiedWithAbove = (order: readonly Ranked[], id: string, tied: boolean): Ranked[] =>
  order.map((r, i) => (r.id === id && i > 0 ? { ...r, tied } : r));

/** Places as they are kept, each thing once. */
export const ranksOf = (order: readonly Ranked[]): { id: string; rank: number }[] => {
  const places = placesOf(order);
  return order.map((r, i) => ({ id: r.id, rank: places[i]! }));
};

/** An order from kept places; what has none comes last in the order given. */
export function orderOf(ids: readonly string[], rankOf: (id: string) => number | undefined): Ranked[] {
  const sorted = ids
    .map((id, i) => ({ id, rank: rankOf(id) ?? Infinity, i }))
    .sort((a, b) => a.rank - b.rank || a.i - b.i);
  return sorted.map((r, i) => ({
    id: r.id,
    tied: i > 0 && Number.isFinite(r.rank) && sorted[i - 1]!.rank === r.rank,
  }));
}
