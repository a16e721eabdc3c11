/**
 * Agreement of two scorings of the same things on an ordered scale beyond what chance alone would give, weighted by how far
 * apart they are (Cohen 1968, Psychological Bulletin 70, 213–220).
 *
 * @param pairs both scores of each thing
 * @param steps every step of the scale, in order
 * @param weights linear: steps apart count; quadratic: their square
 * @returns −1 … 1; null where neither ever scored two different steps (nothing to agree on) or there is no pair
 * @example weightedKappa([[1, 1], [2, 3], [3, 3]], [1, 2, 3], 'linear') // 0.667
 */
export function weightedKappa(
  pairs: readonly (readonly [number, number])[],
  steps: readonly number[],
  weights: 'linear' | 'quadratic',
): number | null {
  const n = pairs.length;
  if (n === 0) return null;
  const at = new Map(steps.map((s, i) => [s, i]));
  const apart = (i: number, j: number) => Math.abs(i - j) ** (weights === 'linear' ? 1 : 2);
  const [first, second] = [0, 1].map((side) =>
    steps.map((s) => pairs.filter((p) => p[side as 0 | 1] === s).length / n),
  ) as [number[], number[]];
  const seen = pairs.reduce((sum, [a, b]) => sum + apart(at.get(a)!, at.get(b)!), 0) / n;
  const byChance = first.reduce(
    (sum, p, i) => sum + second.reduce((inner, q, j) => inner + p * q * apart(i, j), 0),
    0,
  );
  return byChance === 0 ? null : 1 - seen / byChance;
}
