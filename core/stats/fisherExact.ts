import hypergeometricPmf from '@stdlib/stats-base-dists-hypergeometric-pmf';

/** Tables as likely as the observed one but for rounding count as no likelier; R's fisher.test has the same slack. */
const SLACK = 1 + 1e-7;

/**
 * Fisher's exact test of two proportions, two-sided: the sum of the tables no likelier than the observed.
 * @param k1 of n1 and k2 of n2, whole
 * @returns 1 where a side is empty
 * @example fisherExact(3, 4, 1, 4) // 0.486: the lady tasting tea
 */
export function fisherExact(k1: number, n1: number, k2: number, n2: number): number {
  const [total, successes] = [n1 + n2, k1 + k2];
  if (n1 === 0 || n2 === 0) return 1;
  const at = (k: number) => hypergeometricPmf(k, total, successes, n1);
  const observed = at(k1) * SLACK;
  let p = 0;
  for (let k = Math.max(0, successes - n2); k <= Math.min(n1, successes); k++) {
    const one = at(k);
    if (one <= observed) p += one;
  }
  return Math.min(1, p);
}
