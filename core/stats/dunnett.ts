import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { type Rule, compositeRule, estimatedScaleRule, solveIncreasing } from './quadrature';
import { smoothTable } from './smoothTable';

/**
 * Dunnett's comparison of several treatments with one control, two-sided, exact for unequal numbers.
 *
 * The joint chance that all |tᵢ| ≤ d depends on the correlations of the differences. In a one-way layout
 * and in complete blocks they have the product form ρᵢⱼ = λᵢλⱼ, and two nested quadratures give it. Blocks
 * with missing cells may break that form; then a deterministic lattice rule stands in for the inner one,
 * good to about 1e-5.
 *
 * Source: Dunnett (1955, 1964); product form after Hsu, Multiple Comparisons (1996); lattice rule after
 * Genz and Bretz, Computation of Multivariate Normal and t Probabilities (2009). From memory, checked
 * against published tables, simulation and each other.
 */
export interface DunnettFamily {
  /** simultaneous critical value of |t| for a family-wise error of alpha */
  criticalValue: (alpha: number) => number;
  /** adjusted p for one comparison's |t| */
  pValue: (t: number) => number;
  method: 'product' | 'lattice' | 'single';
}

const INV_SQRT_2PI = 1 / Math.sqrt(2 * Math.PI);

/** λ with ρᵢⱼ = λᵢλⱼ for all pairs, or null where there is none. */
function productForm(correlation: readonly (readonly number[])[]): number[] | null {
  const k = correlation.length;
  const rho = (i: number, j: number) => correlation[i]![j]!;
  if (k === 1) return [0];
  if (k === 2) return Array<number>(2).fill(Math.sqrt(Math.abs(rho(0, 1))));
  const lambda = correlation.map((_, i) => {
    const [j, m] = [(i + 1) % k, (i + 2) % k] as const;
    return Math.sqrt((rho(i, j) * rho(i, m)) / rho(j, m));
  });
  for (let i = 0; i < k; i++) {
    if (!(lambda[i]! < 0.9999)) return null;
    for (let j = 0; j < i; j++) if (Math.abs(lambda[i]! * lambda[j]! - rho(i, j)) > 1e-9) return null;
  }
  return lambda;
}

/**
 * One correlation for all pairs: their mean, its root in steps of a fiftieth. Taken from the values themselves correlations
 * never come twice, and critical values hardly depend on them.
 * @example inSteps([[1, 0.48], [0.48, 1]])[0]![1] // 0.49
 */
export function inSteps(correlation: readonly (readonly number[])[]): number[][] {
  const k = correlation.length;
  let sum = 0;
  for (let i = 1; i < k; i++) for (let j = 0; j < i; j++) sum += correlation[i]![j]!;
  const average = k < 2 ? 0 : sum / ((k * (k - 1)) / 2);
  const step = Math.min(49, Math.round(Math.sqrt(Math.max(0, average)) * 50));
  let alike = stepped.get(k * 100 + step);
  if (!alike) {
    const r = (step / 50) ** 2;
    alike = Array.from({ length: k }, (_, i) => Array.from({ length: k }, (_v, j) => (i === j ? 1 : r)));
    stepped.set(k * 100 + step, alike);
  }
  return alike;
}

/** The same matrix for the same step, so that what is worked out of it is found again at once. */
const stepped = new Map<number, number[][]>();

/** P(all |Zᵢ| ≤ x) for known spread; even in the shared factor, so half the line is enough. */
function productProbability(lambda: readonly number[]): (x: number) => number {
  const c = lambda.map((l) => Math.sqrt(1 - l * l));
  const panels = Math.max(3, Math.ceil(1.5 / Math.min(...c)));
  const z: Rule = compositeRule(0, 8.5, Math.min(panels, 60));
  const density = z.points.map((p, i) => 2 * z.weights[i]! * INV_SQRT_2PI * Math.exp((-p * p) / 2));
  const groups = new Map<number, number>();
  lambda.forEach((l) => groups.set(l, (groups.get(l) ?? 0) + 1));
  const factors = [...groups].map(([l, count]) => ({ l, count, c: Math.sqrt(1 - l * l) }));
  return (x) => {
    let sum = 0;
    for (let i = 0; i < z.points.length; i++) {
      let product = density[i]!;
      for (const f of factors) {
        const shift = f.l * z.points[i]!;
        const inside = normalCdf((x + shift) / f.c, 0, 1) - normalCdf((shift - x) / f.c, 0, 1);
        product *= f.count === 1 ? inside : inside ** f.count;
      }
      sum += product;
    }
    return sum;
  };
}

function cholesky(matrix: readonly (readonly number[])[]): number[][] {
  const k = matrix.length;
  const l = Array.from({ length: k }, () => Array<number>(k).fill(0));
  for (let i = 0; i < k; i++) {
    for (let j = 0; j <= i; j++) {
      let s = matrix[i]![j]!;
      for (let m = 0; m < j; m++) s -= l[i]![m]! * l[j]![m]!;
      l[i]![j] = i === j ? Math.sqrt(Math.max(s, 1e-14)) : s / l[j]![j]!;
    }
  }
  return l;
}

/** A Korobov lattice (1959): the point's number times powers of the generator, which was searched for by its P₂. */
const LATTICE_POINTS = 2039;
const GENERATOR = 864;

/** Coordinates of one dimension, folded so that the integrand is periodic (the baker's transformation). */
function latticeCoordinates(dimension: number): Float64Array {
  let step = 1;
  for (let i = 0; i < dimension; i++) step = (step * GENERATOR) % LATTICE_POINTS;
  return Float64Array.from({ length: LATTICE_POINTS }, (_, p) =>
    Math.abs(2 * ((((p + 0.5) * step) / LATTICE_POINTS) % 1) - 1),
  );
}

/** P(all |Zᵢ| ≤ x) for known spread and any correlation, the dimensions one after the other (Genz 1992). */
function latticeProbability(correlation: readonly (readonly number[])[]): (x: number) => number {
  const k = correlation.length;
  const l = cholesky(correlation);
  const points = Array.from({ length: k - 1 }, (_, i) => latticeCoordinates(i));
  const y = new Float64Array(k);
  return (x) => {
    if (x === 0) return 0;
    let total = 0;
    for (let p = 0; p < LATTICE_POINTS; p++) {
      let product = 1;
      for (let i = 0; i < k && product > 0; i++) {
        let shift = 0;
        for (let j = 0; j < i; j++) shift += l[i]![j]! * y[j]!;
        const low = normalCdf((-x - shift) / l[i]![i]!, 0, 1);
        const width = normalCdf((x - shift) / l[i]![i]!, 0, 1) - low;
        product *= width;
        if (i + 1 < k) {
          const u = low + points[i]![p]! * width;
          y[i] = normalQuantile(Math.min(Math.max(u, 1e-15), 1 - 1e-15), 0, 1);
        }
      }
      total += product;
    }
    return total / LATTICE_POINTS;
  };
}

/** The spread is estimated on df: the chance for a known one, weighted by where the estimate may lie. */
function overSpread(inner: (x: number) => number, df: number): (d: number) => number {
  const scale = estimatedScaleRule(df);
  return (d) => {
    let sum = 0;
    for (let i = 0; i < scale.points.length; i++) {
      if (scale.weights[i]! < 1e-16) continue;
      const x = d * scale.points[i]!;
      sum += scale.weights[i]! * (x > 8 ? 1 : inner(x));
    }
    return Math.min(1, sum);
  };
}

/** Names a correlation matrix: symmetric, so that half of it says all. */
const keyOf = (correlation: readonly (readonly number[])[]): string => {
  const off = correlation.flatMap((row, i) => row.slice(0, i));
  const alike = off.every((r) => r === off[0]) ? off.slice(0, 1) : off;
  return `${correlation.length}|${alike.map((v) => v.toFixed(10)).join()}`;
};

const families = new Map<string, DunnettFamily>();
/** the same by the very matrix, as far as it is asked again */
const byMatrix = new WeakMap<readonly (readonly number[])[], Map<number, DunnettFamily>>();
const tables = new Map<string, (x: number) => number>();

/** The chance for a known spread, tabled once for a design however its spread was seen. */
function tableOf(correlation: readonly (readonly number[])[], lambda: readonly number[] | null) {
  const key = `${lambda ? '' : 'lattice '}${keyOf(correlation)}`;
  let table = tables.get(key);
  if (!table) {
    table = lambda
      ? smoothTable(productProbability(lambda))
      : smoothTable(latticeProbability(correlation), 2);
    if (tables.size > 200) tables.clear();
    tables.set(key, table);
  }
  return table;
}

/**
 * Prepares Dunnett's test for one set of comparisons.
 *
 * @param correlation k × k correlation matrix of the k differences from the control
 * @param df residual degrees of freedom, ≥ 1 (Infinity for a known spread)
 * @param force 'lattice' makes the general rule do the work even where the product form holds (for tests)
 * @example dunnettFamily([[1, .5], [.5, 1]], 12).criticalValue(0.05) // 2.502
 */
export function dunnettFamily(
  correlation: readonly (readonly number[])[],
  df: number,
  force?: 'lattice',
): DunnettFamily {
  let own = force ? undefined : byMatrix.get(correlation);
  const again = own?.get(df);
  if (again) return again;
  const key = `${force ?? ''}${df}|${keyOf(correlation)}`;
  let family = families.get(key);
  if (!family) {
    family = madeFamily(correlation, df, force);
    if (families.size > 5000) families.clear();
    families.set(key, family);
  }
  if (!force) {
    if (!own) byMatrix.set(correlation, (own = new Map()));
    own.set(df, family);
  }
  return family;
}

function madeFamily(
  correlation: readonly (readonly number[])[],
  df: number,
  force?: 'lattice',
): DunnettFamily {
  const lambda = force ? null : productForm(correlation);
  const probability = overSpread(tableOf(correlation, lambda), df);
  const critical = new Map<number, number>();
  return {
    method: correlation.length === 1 ? 'single' : lambda ? 'product' : 'lattice',
    criticalValue: (alpha) => {
      let value = critical.get(alpha);
      if (value === undefined) critical.set(alpha, (value = solveIncreasing(probability, 1 - alpha, 3)));
      return value;
    },
    pValue: (t) => Math.min(1, Math.max(0, 1 - probability(Math.abs(t)))),
  };
}
