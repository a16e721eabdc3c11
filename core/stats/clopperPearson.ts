import binomialCdf from '@stdlib/stats-base-dists-binomial-cdf';

/**
 * The exact interval of a proportion (Clopper and Pearson 1934), by the binomial itself.
 * @param k whole, 0 to n @param n more than 0
 * @example clopperPearson(7, 20, 0.05) // { low: 0.154, high: 0.592 }
 */
export function clopperPearson(k: number, n: number, alpha: number): { low: number; high: number } {
  const root = (f: (p: number) => number): number => {
    let [from, to] = [0, 1];
    for (let i = 0; i < 60; i++) {
      const middle = (from + to) / 2;
      if (f(middle) < 0) from = middle;
      else to = middle;
    }
    return (from + to) / 2;
  };
  return {
    low: k === 0 ? 0 : root((p) => 1 - binomialCdf(k - 1, n, p) - alpha / 2),
    high: k === n ? 1 : root((p) => alpha / 2 - binomialCdf(k, n, p)),
  };
}
