/** C(n, m), how many ways there are to choose m of n; exact up to 2⁵³. @example choose(5, 2) // 10 */
export function choose(n: number, m: number): number {
  let c = 1;
  for (let i = 1; i <= m; i++) c = (c * (n - m + i)) / i;
  return Math.round(c);
}

/**
 * Visits every choice of m of n places in lexicographic order.
 * @param visit gets the places chosen, ascending, and the number of the choice from 0; the array is used again
 */
export function eachChoice(
  n: number,
  m: number,
  visit: (chosen: readonly number[], at: number) => void,
): void {
  const chosen = Array.from({ length: m }, (_, i) => i);
  for (let at = 0; ; at++) {
    visit(chosen, at);
    let i = m - 1;
    while (i >= 0 && chosen[i] === n - m + i) i -= 1;
    if (i < 0) return;
    chosen[i]! += 1;
    for (let j = i + 1; j < m; j++) chosen[j] = chosen[j - 1]! + 1;
  }
}
