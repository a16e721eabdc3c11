/** A contender in a picture, in the plan's order. */
export interface Lane {
  id: string;
  name: string;
  index: number;
}

/** Things of different heights stacked below each other, with where each begins and where the last ends. */
export function stackedBelow<T>(items: readonly T[], top: number, heightOf: (item: T) => number) {
  const placed: { item: T; at: number; height: number }[] = [];
  for (const item of items) {
    const last = placed.at(-1);
    placed.push({ item, at: last ? last.at + last.height : top, height: heightOf(item) });
  }
  const last = placed.at(-1);
  return { placed, bottom: last ? last.at + last.height : top };
}

/** Names at the ends of lines, moved down as far as they would overlap. @returns where each stands, by its key */
export function keptApart(ends: readonly { key: string; y: number }[], gap = 18): Map<string, number> {
  const placed = new Map<string, number>();
  let last = -Infinity;
  for (const { key, y } of [...ends].sort((a, b) => a.y - b.y)) {
    last = Math.max(y, last + gap);
    placed.set(key, last);
  }
  return placed;
}
