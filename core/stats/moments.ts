/** Arithmetic mean; NaN of nothing. @example mean([1, 2, 6]) // 3 */
export const mean = (xs: readonly number[]): number => xs.reduce((s, x) => s + x, 0) / xs.length;

/** Standard deviation over n − 1; NaN below two values. @example sd([1, 2, 3]) // 1 */
export function sd(xs: readonly number[]): number {
  const centre = mean(xs);
  return Math.sqrt(xs.reduce((s, x) => s + (x - centre) ** 2, 0) / (xs.length - 1));
}
