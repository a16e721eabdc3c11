import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import { type Rule, compositeRule, estimatedScaleRule, solveIncreasing } from './quadrature';
import { smoothTable } from './smoothTable';

const INV_SQRT_2PI = 1 / Math.sqrt(2 * Math.PI);
const z = compositeRule(-8.5, 8.5, 5);
const density = z.points.map((x, i) => z.weights[i]! * INV_SQRT_2PI * Math.exp((-x * x) / 2));
const cumulative = z.points.map((x) => normalCdf(x, 0, 1));

/** Chance that the range of `groups` standard normal values is at most `width`. */
function rangeProbability(width: number, groups: number): number {
  let sum = 0;
  for (let i = 0; i < z.points.length; i++) {
    const inside = cumulative[i]! - normalCdf(z.points[i]! - width, 0, 1);
    sum += density[i]! * inside ** (groups - 1);
  }
  return Math.min(1, groups * sum);
}

const tables = new Map<number, (width: number) => number>();

/** `rangeProbability` for so many groups, tabulated. */
function rangeTable(groups: number): (width: number) => number {
  let table = tables.get(groups);
  if (!table) tables.set(groups, (table = smoothTable((width) => rangeProbability(width, groups))));
  return table;
}

/**
 * Distribution function of the studentized range, by quadrature over the value and the estimated spread.
 *
 * @param q range divided by the estimated standard deviation, ≥ 0
 * @param groups number of means compared, ≥ 2
 * @param df residual degrees of freedom, ≥ 1
 * @returns probability of a range up to q
 * Source: Copenhaver and Holland (1988), memory; checked against R's ptukey.
 * @example studentizedRangeCdf(3.5, 4, 20) // 0.90504
 */
export function studentizedRangeCdf(q: number, groups: number, df: number): number {
  if (!(q > 0)) return 0;
  const scale: Rule = estimatedScaleRule(df);
  const probability = rangeTable(groups);
  let sum = 0;
  for (let i = 0; i < scale.points.length; i++) {
    if (scale.weights[i]! < 1e-16) continue;
    const width = q * scale.points[i]!;
    sum += scale.weights[i]! * (width > 17 ? 1 : probability(width));
  }
  return Math.min(1, sum);
}

const criticalValues = new Map<string, number>();

/**
 * Quantile of the studentized range.
 * @param probability between 0 and 1, e.g. 0.95
 * @example studentizedRangeQuantile(0.95, 4, 20) // 3.958
 */
export function studentizedRangeQuantile(probability: number, groups: number, df: number): number {
  const key = `${probability}|${groups}|${df}`;
  let value = criticalValues.get(key);
  if (value === undefined) {
    value = solveIncreasing((q) => studentizedRangeCdf(q, groups, df), probability, 4);
    criticalValues.set(key, value);
  }
  return value;
}
