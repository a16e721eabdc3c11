interface RatioInput {
  /** treatment mean and the control mean it is divided by */
  numerator: number;
  denominator: number;
  varNumerator: number;
  varDenominator: number;
  covariance: number;
  /** of the test that is turned round: Student's, or Dunnett's where the limits hold for all together */
  critical: number;
}

/**
 * Fieller's interval for the ratio of two means. It holds 1 exactly where the test of their difference at the same
 * critical value isn't significant.
 *
 * @returns low and high of the ratio, or null where the denominator isn't clearly away from zero (the
 *   interval is then open-ended)
 * Source: Fieller, J. R. Stat. Soc. B 16 (1954), 175–185.
 * @example fiellerInterval({ numerator: 2, denominator: 1, varNumerator: 0, varDenominator: 0,
 *   covariance: 0, critical: 2.228 }) // { low: 2, high: 2 }
 */
export function fiellerInterval(r: RatioInput): { low: number; high: number } | null {
  const t = r.critical;
  const a = r.denominator ** 2 - t * t * r.varDenominator;
  if (!(a > 0)) return null;
  const b = r.numerator * r.denominator - t * t * r.covariance;
  // b² − ac, worked out so that nothing large is taken from something as large.
  const inside =
    r.numerator ** 2 * r.varDenominator +
    r.denominator ** 2 * r.varNumerator -
    2 * r.numerator * r.denominator * r.covariance +
    t * t * (r.covariance ** 2 - r.varNumerator * r.varDenominator);
  const root = Math.abs(t) * Math.sqrt(Math.max(0, inside));
  return { low: (b - root) / a, high: (b + root) / a };
}
