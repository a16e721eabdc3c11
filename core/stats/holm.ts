/**
 * p-values put right for several tests by Holm's step-down rule (1979).
 * @param ps null where there was no test: it stays null and isn't counted
 * @returns in the order given
 * @example holm([0.01, 0.04, 0.03]) // [0.03, 0.06, 0.06]
 */
export function holm(ps: readonly (number | null)[]): (number | null)[] {
  const order = ps.flatMap((p, i) => (p === null ? [] : [{ p, i }])).sort((a, b) => a.p - b.p);
  const out: (number | null)[] = ps.map(() => null);
  let most = 0;
  order.forEach(({ p, i }, rank) => {
    most = Math.max(most, Math.min(1, p * (order.length - rank)));
    out[i] = most;
  });
  return out;
}
