/**
 * Shares as whole per cents that add up to 100: what rounding leaves goes to the largest remainders, the first of equals.
 *
 * @param parts not below 0; only their proportions count
 * @returns noughts where all are nought
 * @example wholePercents([5, 3]) // [63, 37]
 */
export function wholePercents(parts: readonly number[]): number[] {
  const total = parts.reduce((s, x) => s + x, 0);
  if (!(total > 0)) return parts.map(() => 0);
  const exact = parts.map((x) => (100 * x) / total);
  const whole = exact.map(Math.floor);
  const byRemainder = parts
    .map((_, i) => i)
    .sort((i, j) => exact[j]! - whole[j]! - (exact[i]! - whole[i]!) || i - j);
  const left = 100 - whole.reduce((s, w) => s + w, 0);
  for (const i of byRemainder.slice(0, left)) whole[i]! += 1;
  return whole;
}
