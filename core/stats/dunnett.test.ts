// Reference: two-sided 5 % and 1 % tables of Dunnett (1955, 1964), from memory; brute-force simulation;
// Student's t for one comparison; the lattice rule against the product form.
import { describe, expect, it } from 'vitest';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { dunnettFamily } from './dunnett';

const equal = (k: number, rho = 0.5) =>
  Array.from({ length: k }, (_, i) => Array.from({ length: k }, (_, j) => (i === j ? 1 : rho)));

/** correlation of differences from a control of n0 units */
const unequal = (n0: number, n: number[]) => {
  const lambda = n.map((ni) => Math.sqrt(ni / (ni + n0)));
  return lambda.map((a, i) => lambda.map((b, j) => (i === j ? 1 : a * b)));
};

describe('published two-sided critical values, equal numbers', () => {
  it.each([
    [2, 12, 0.05, 2.5],
    [3, 12, 0.05, 2.68],
    [4, 12, 0.05, 2.81],
    [2, 20, 0.05, 2.38],
    [3, 20, 0.05, 2.54],
    [5, 20, 0.05, 2.73],
    [9, 20, 0.05, 2.95],
    [4, 60, 0.05, 2.51],
    [3, 10, 0.01, 3.74],
    [3, 20, 0.01, 3.29],
    [2, Infinity, 0.05, 2.21],
  ])('%d treatments, %d df, alpha %d: %d', (k, df, alpha, published) => {
    expect(Math.abs(dunnettFamily(equal(k), df).criticalValue(alpha) - published)).toBeLessThan(0.0075);
  });
});

it('is Student’s t for a single comparison', () => {
  for (const df of [1, 2, 5, 40]) {
    const t = tQuantile(0.975, df);
    expect(dunnettFamily([[1]], df).criticalValue(0.05) / t).toBeCloseTo(1, 6);
  }
});

it('p-value and critical value agree', () => {
  const family = dunnettFamily(unequal(4, [6, 3, 9]), 18);
  expect(family.pValue(family.criticalValue(0.05))).toBeCloseTo(0.05, 9);
  expect(family.pValue(0)).toBe(1);
});

it('agrees with brute force for very unequal numbers, within four standard errors', () => {
  const [n0, n, df, t] = [3, [12, 5, 2], 18, 2.3] as const;
  const generator = xoroshiro128plus(20261);
  const uniform = () => ((generator.next() >>> 0) + 0.5) / 2 ** 32;
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  const runs = 120_000;
  let beyond = 0;
  for (let run = 0; run < runs; run++) {
    const control = normal() / Math.sqrt(n0);
    let chi = 0;
    for (let i = 0; i < df; i++) chi += normal() ** 2;
    const s = Math.sqrt(chi / df);
    if (n.some((ni) => Math.abs(normal() / Math.sqrt(ni) - control) / (s * Math.sqrt(1 / ni + 1 / n0)) > t)) {
      beyond++;
    }
  }
  const p = dunnettFamily(unequal(n0, [...n]), df).pValue(t);
  expect(Math.abs(beyond / runs - p)).toBeLessThan(4 * Math.sqrt((p * (1 - p)) / runs));
});

describe('the lattice rule for other correlations', () => {
  it.each([
    [equal(3), 10],
    [unequal(3, [12, 5, 2, 4]), 15],
    [equal(5), 40],
  ])('agrees with the product form to 2e-4', (correlation, df) => {
    const exact = dunnettFamily(correlation, df);
    const lattice = dunnettFamily(correlation, df, 'lattice');
    expect(exact.method).toBe('product');
    expect(lattice.method).toBe('lattice');
    for (const t of [1.5, 2.5, 3.5]) {
      expect(Math.abs(lattice.pValue(t) - exact.pValue(t))).toBeLessThan(2e-4);
    }
  });

  it('is chosen only where there is no product form', () => {
    const odd = equal(4, 0.5).map((r) => [...r]);
    odd[0]![1] = odd[1]![0] = 0.7;
    expect(dunnettFamily(odd, 12).method).toBe('lattice');
    expect(dunnettFamily(unequal(2, [9, 1, 3, 4]), 12).method).toBe('product');
  });
});
