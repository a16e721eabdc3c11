import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import { dunnettFamily } from '../stats/dunnett';
import { noncentralFCdf } from '../stats/noncentralF';
import { estimatedScaleRule, solveIncreasing } from '../stats/quadrature';
import { studentizedRangeQuantile } from '../stats/studentizedRange';
import { steppedDown } from '../stats/ownSpread';
import fQuantile from '@stdlib/stats-base-dists-f-quantile';

interface TrialSize {
  /** treatments, the control included, ≥ 2 */
  treatments: number;
  /** experimental units of each, ≥ 1 */
  replicates: number;
  /** complete blocks (or rows of a square) taken off; 1 for none */
  blocks: number;
  /** columns of a Latin square taken off; 1 for none */
  columns?: number;
  /** family-wise error, e.g. 0.05 */
  alpha: number;
  /** as findings test: contenders may differ in spread (`ownSpreads`); left out: one spread for all */
  spreads?: 'own';
}

export interface Power {
  /** of one given product that differs, against the control, by Dunnett's two-sided test */
  versusControl: number;
  /** of that product against any one of the others, by Tukey's test */
  pair: number;
  /** of the analysis of variance, when one product differs and all others equal the control */
  anova: number;
}

/** Residual degrees of freedom on unit means. @example residualDf({ treatments: 4, replicates: 6, blocks: 6, alpha: .05 }) // 15 */
export const residualDf = ({ treatments, replicates, blocks, columns = 1 }: TrialSize): number =>
  treatments * replicates - treatments - (blocks - 1) - (columns - 1);

/**
 * Chance that |T| exceeds a critical value, T noncentral t.
 * @param noncentrality difference divided by its standard error
 * @param df residual degrees of freedom, ≥ 1
 */
export function twoSidedTPower(critical: number, noncentrality: number, df: number): number {
  const scale = estimatedScaleRule(df);
  let inside = 0;
  for (let i = 0; i < scale.points.length; i++) {
    const c = critical * scale.points[i]!;
    inside += scale.weights[i]! * (normalCdf(c - noncentrality, 0, 1) - normalCdf(-c - noncentrality, 0, 1));
  }
  return Math.min(1, Math.max(0, 1 - inside));
}

/** Satterthwaite's degrees of freedom of findings (`ownSpreads`) where spreads are in truth alike; in blocks their share. */
function seenWith(size: TrialSize): { control: number; pair: number } {
  const { treatments: k, replicates: r, spreads } = size;
  const df = residualDf(size);
  // Of two units nobody has a spread of its own.
  if (spreads === undefined || r < 3) return { control: df, pair: df };
  const others = k - 2;
  const free = (of: number) => steppedDown((4 * df) / k / of);
  if (others === 0) return { control: free(2), pair: free(2) };
  return {
    control: free(1 + (1 + 1 / others) / 4),
    pair: free((1 + 1 / others) ** 2 / 2 + (k - 3) / others ** 2),
  };
}

/** Critical values of the tests of one trial size, shared by all its powers, and the freedom they are held with. */
function criticalValues(size: TrialSize) {
  const { treatments: k, alpha } = size;
  const df = seenWith(size);
  const correlation = Array.from({ length: k - 1 }, (_, i) =>
    Array.from({ length: k - 1 }, (_, j) => (i === j ? 1 : 0.5)),
  );
  return {
    control: { df: df.control, critical: dunnettFamily(correlation, df.control).criticalValue(alpha) },
    pair: { df: df.pair, critical: studentizedRangeQuantile(1 - alpha, k, df.pair) / Math.SQRT2 },
  };
}

/**
 * Power of a balanced trial to see a difference.
 *
 * @param size number of treatments, replicates and blocks
 * @param cvPercent spread from unit to unit inside blocks, per cent of the control's mean, > 0
 * @param differencePercent true difference of one product, per cent of the control's mean; the others equal
 *   the control
 * @returns the three powers, or null when no residual is left
 * Source: noncentral t and F; checked against R's power.t.test and power.anova.test.
 * @example powerOf({ treatments: 2, replicates: 17, blocks: 1, alpha: .05 }, 10, 10)!.pair // 0.807
 */
export function powerOf(size: TrialSize, cvPercent: number, differencePercent: number): Power | null {
  const df = residualDf(size);
  if (df < 1) return null;
  const { treatments: k, replicates: r } = size;
  const delta = differencePercent / cvPercent;
  const noncentrality = delta * Math.sqrt(r / 2);
  const { control, pair } = criticalValues(size);
  const lambda = (r * delta ** 2 * (k - 1)) / k;
  return {
    versusControl: twoSidedTPower(control.critical, noncentrality, control.df),
    pair: twoSidedTPower(pair.critical, noncentrality, pair.df),
    anova: 1 - noncentralFCdf(fQuantile(1 - size.alpha, k - 1, df), k - 1, df, lambda),
  };
}

/**
 * Smallest difference a trial sees with the wanted power.
 * @param against `control`: one product against it by Dunnett; `pair`: any two by Tukey
 * @returns per cent of the control's mean, or null when no residual is left
 */
export function detectableDifference(
  size: TrialSize,
  cvPercent: number,
  power: number,
  against: 'control' | 'pair',
): number | null {
  if (residualDf(size) < 1) return null;
  const { critical, df } = criticalValues(size)[against];
  const delta = solveIncreasing((d) => twoSidedTPower(critical, d, df), power, 3);
  return (delta / Math.sqrt(size.replicates / 2)) * cvPercent;
}

/** How the blocks grow with the replicates: not at all (a number), or one block (row, column) each. */
export type Blocking = number | 'perReplicate' | 'latin';

/** A trial size with its blocks. */
export function sizeOf(
  treatments: number,
  replicates: number,
  blocking: Blocking,
  alpha: number,
  spreads?: 'own',
): TrialSize {
  const blocks = typeof blocking === 'number' ? blocking : replicates;
  const columns = blocking === 'latin' ? replicates : 1;
  return { treatments, replicates, blocks, columns, alpha, ...(spreads && { spreads }) };
}

const MOST_REPLICATES = 5000;

/**
 * Fewest units of each treatment that see a difference with the wanted power.
 * @returns null when even 5,000 don't
 */
export function replicatesNeeded(
  treatments: number,
  blocking: Blocking,
  alpha: number,
  cvPercent: number,
  differencePercent: number,
  power: number,
  against: 'control' | 'pair' = 'control',
  spreads?: 'own',
): number | null {
  const enough = (r: number) => {
    const p = powerOf(sizeOf(treatments, r, blocking, alpha, spreads), cvPercent, differencePercent);
    return p !== null && p[against === 'control' ? 'versusControl' : 'pair'] >= power;
  };
  let high = 2;
  while (!enough(high)) {
    if (high >= MOST_REPLICATES) return null;
    high = Math.min(MOST_REPLICATES, high * 2);
  }
  let low = Math.max(1, Math.floor(high / 2));
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}
