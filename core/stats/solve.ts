/** A pivot smaller than this against the largest is none. */
const SINGULAR = 1e-11;

/**
 * Solves a square system by elimination with partial pivoting.
 * @returns null where the matrix is singular
 * @example solve([[2, 0], [0, 4]], [2, 2]) // [1, 0.5]
 */
export function solve(matrix: readonly (readonly number[])[], right: readonly number[]): number[] | null {
  const n = right.length;
  const a = matrix.map((row, i) => [...row, right[i]!]);
  const largest = Math.max(0, ...a.flatMap((row) => row.slice(0, n).map(Math.abs)));
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r]![c]!) > Math.abs(a[pivot]![c]!)) pivot = r;
    if (Math.abs(a[pivot]![c]!) <= SINGULAR * largest || largest === 0) return null;
    [a[c], a[pivot]] = [a[pivot]!, a[c]!];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const factor = a[r]![c]! / a[c]![c]!;
      if (factor !== 0) for (let k = c; k <= n; k++) a[r]![k]! -= factor * a[c]![k]!;
    }
  }
  return a.map((row, i) => row[n]! / row[i]!);
}
