/**
 * Compact letter display: treatments share a letter exactly when they don't differ.
 *
 * Insert-and-absorb: start with one letter for all; each pair that differs splits every letter that
 * holds both; letters that stand inside another are dropped. Source: Piepho, J. Comput. Graph. Stat. 13
 * (2004), 456–466 (memory).
 *
 * @param order treatment indices in the order letters are given out (largest mean first)
 * @param differs whether two treatments differ
 * @returns the letters of each treatment, by treatment index
 * @example letterDisplay([0, 1, 2], (a, b) => a + b === 2 && a !== b) // ['a', 'ab', 'b']
 */
export function letterDisplay(
  order: readonly number[],
  differs: (a: number, b: number) => boolean,
): string[] {
  let columns: Set<number>[] = [new Set(order)];
  for (let i = 0; i < order.length; i++) {
    for (let j = i + 1; j < order.length; j++) {
      const [a, b] = [order[i]!, order[j]!];
      if (!differs(a, b)) continue;
      const split = columns.flatMap((column) => {
        if (!column.has(a) || !column.has(b)) return [column];
        const without = (x: number) => new Set([...column].filter((y) => y !== x));
        return [without(b), without(a)];
      });
      columns = split.filter(
        (column, c) =>
          !split.some(
            (other, o) =>
              o !== c && [...column].every((t) => other.has(t)) && (other.size > column.size || o < c),
          ),
      );
    }
  }
  const rank = new Map(order.map((t, i) => [t, i]));
  const key = (column: Set<number>) => [...column].map((t) => rank.get(t)!).sort((x, y) => x - y);
  columns.sort((x, y) => {
    const [kx, ky] = [key(x), key(y)];
    for (let i = 0; i < Math.min(kx.length, ky.length); i++) if (kx[i] !== ky[i]) return kx[i]! - ky[i]!;
    return kx.length - ky.length;
  });
  const letters = Array<string>(Math.max(-1, ...order) + 1).fill('');
  columns.forEach((column, i) => {
    for (const t of column) letters[t] += letterAt(i);
  });
  return letters;
}

/** a … z, then aa, ab … */
function letterAt(i: number): string {
  return i < 26 ? String.fromCharCode(97 + i) : letterAt(Math.floor(i / 26) - 1) + letterAt(i % 26);
}
