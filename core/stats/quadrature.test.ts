// Reference: Abramowitz and Stegun, table 25.4 (nodes and weights); exact integrals; moments of chi.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compositeRule, estimatedScaleRule, gaussLegendre, solveIncreasing } from './quadrature';

const integrate = (rule: { points: Float64Array; weights: Float64Array }, f: (x: number) => number) =>
  rule.points.reduce((s, x, i) => s + rule.weights[i]! * f(x), 0);

describe('Gauss–Legendre', () => {
  it.each([
    [2, [0.577350269189626], [1]],
    [3, [0.774596669241483, 0], [0.555555555555556, 0.888888888888889]],
    [5, [0.906179845938664, 0.538469310105683, 0], [0.236926885056189, 0.478628670499366, 0.568888888888889]],
  ])('%d nodes as in the table', (n, points, weights) => {
    const rule = gaussLegendre(n);
    points.forEach((p, i) => expect(rule.points[i]).toBeCloseTo(p, 14));
    weights.forEach((w, i) => expect(rule.weights[i]).toBeCloseTo(w, 14));
  });
  it('one node is the midpoint', () => {
    expect(gaussLegendre(1).points[0]).toBeCloseTo(0, 15);
    expect(gaussLegendre(1).weights[0]).toBeCloseTo(2, 15);
  });
  it('is exact for polynomials up to twice its nodes less one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 24, maxLength: 24 }),
        (n, c) => {
          const terms = c.slice(0, 2 * n);
          const value = integrate(gaussLegendre(n), (x) => terms.reduce((s, a, k) => s + a * x ** k, 0));
          const exact = terms.reduce((s, a, k) => s + (k % 2 === 0 ? (2 * a) / (k + 1) : 0), 0);
          expect(value).toBeCloseTo(exact, 10);
        },
      ),
    );
  });
});

it('panels integrate over any interval', () => {
  expect(integrate(compositeRule(0, Math.PI, 3), Math.sin)).toBeCloseTo(2, 13);
  expect(integrate(compositeRule(-2, 5, 4), Math.exp)).toBeCloseTo(Math.exp(5) - Math.exp(-2), 10);
});

describe('the estimated spread', () => {
  it.each([1, 2, 3, 4, 8, 20, 120, 2000])('with %d df averages to E S² = 1, and weights add to one', (df) => {
    const rule = estimatedScaleRule(df);
    expect(integrate(rule, () => 1)).toBeCloseTo(1, 12);
    expect(integrate(rule, (s) => s * s)).toBeCloseTo(1, df < 3 ? 5 : 8);
  });
  it('is known for an infinite number', () => {
    expect([...estimatedScaleRule(Infinity).points]).toEqual([1]);
  });
});

it('solves an increasing function, near and far', () => {
  expect(solveIncreasing((x) => 1 - Math.exp(-x), 0.95)).toBeCloseTo(-Math.log(0.05), 10);
  expect(solveIncreasing((x) => x / (x + 1000), 0.999)).toBeCloseTo(999_000, 3);
  expect(solveIncreasing(() => 0.1, 0.5)).toBe(Infinity);
});
