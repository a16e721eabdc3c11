import chiLogPdf from '@stdlib/stats-base-dists-chi-logpdf';
import chiQuantile from '@stdlib/stats-base-dists-chi-quantile';

/** Points and weights of a quadrature rule: ∫ f ≈ Σ weight · f(point). */
export interface Rule {
  points: Float64Array;
  weights: Float64Array;
}

/**
 * Gauss–Legendre rule on [−1, 1], its nodes found by Newton's method on the Legendre polynomial.
 * @param n number of nodes, ≥ 1
 * Source: Abramowitz and Stegun, 25.4.29.
 */
export function gaussLegendre(n: number): Rule {
  const points = new Float64Array(n);
  const weights = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let step = 0; step < 100; step++) {
      let previous = 1;
      let current = x;
      for (let k = 2; k <= n; k++) {
        const next = ((2 * k - 1) * x * current - (k - 1) * previous) / k;
        previous = current;
        current = next;
      }
      slope = n === 1 ? 1 : (n * (x * current - previous)) / (x * x - 1);
      const dx = n === 1 ? x : current / slope;
      x -= dx;
      if (Math.abs(dx) < 1e-15) break;
    }
    points[i] = x;
    weights[i] = 2 / ((1 - x * x) * slope * slope);
  }
  return { points, weights };
}

const sixteen = gaussLegendre(16);

/**
 * Sixteen-point Gauss–Legendre on each of several equal panels of [low, high].
 * @param panels number of panels, ≥ 1
 */
export function compositeRule(low: number, high: number, panels: number): Rule {
  const n = sixteen.points.length;
  const points = new Float64Array(n * panels);
  const weights = new Float64Array(n * panels);
  const half = (high - low) / panels / 2;
  for (let p = 0; p < panels; p++) {
    const middle = low + half * (2 * p + 1);
    for (let i = 0; i < n; i++) {
      points[p * n + i] = middle + half * sixteen.points[i]!;
      weights[p * n + i] = half * sixteen.weights[i]!;
    }
  }
  return { points, weights };
}

const scaleRules = new Map<number, Rule>();

/**
 * Rule for averaging over the estimated standard deviation: Σ weight · g(s) ≈ E g(S), with S = √(χ²/df),
 * so that a probability known for a known spread becomes one for an estimated spread.
 *
 * @param df residual degrees of freedom, ≥ 1, or Infinity for a known spread
 */
export function estimatedScaleRule(df: number): Rule {
  const known = scaleRules.get(df);
  if (known) return known;
  let rule: Rule;
  if (!Number.isFinite(df) || df > 1e5) {
    rule = { points: Float64Array.of(1), weights: Float64Array.of(1) };
  } else {
    const root = Math.sqrt(df);
    const low = df < 4 ? 0 : chiQuantile(1e-14, df) / root;
    const high = chiQuantile(1 - 1e-13, df) / root;
    const base = compositeRule(low, high, df < 4 ? 16 : df < 12 ? 4 : 2);
    const weights = base.weights.map((w, i) => w * root * Math.exp(chiLogPdf(base.points[i]! * root, df)));
    const total = weights.reduce((s, w) => s + w, 0);
    rule = { points: base.points, weights: weights.map((w) => w / total) };
  }
  if (scaleRules.size > 2000) scaleRules.clear();
  scaleRules.set(df, rule);
  return rule;
}

/**
 * Solves probability(x) = target for an increasing probability by bracketing and the Illinois method.
 * @param probability increasing function of x ≥ 0, from 0 to 1
 * @param target between 0 and 1
 */
export function solveIncreasing(probability: (x: number) => number, target: number, start = 2): number {
  let low = 0;
  let fLow = -target;
  let high = start;
  let fHigh = probability(high) - target;
  while (fHigh < 0) {
    low = high;
    fLow = fHigh;
    high *= 2;
    if (high > 1e8) return Infinity;
    fHigh = probability(high) - target;
  }
  let lastSide = 0;
  for (let i = 0; i < 200 && high - low > 1e-12 * high; i++) {
    let x = high - (fHigh * (high - low)) / (fHigh - fLow);
    if (!(x > low && x < high)) x = (low + high) / 2;
    const f = probability(x) - target;
    if (Math.abs(f) < 1e-14) return x;
    if (f < 0) {
      if (lastSide === -1) fHigh /= 2;
      low = x;
      fLow = f;
      lastSide = -1;
    } else {
      if (lastSide === 1) fLow /= 2;
      high = x;
      fHigh = f;
      lastSide = 1;
    }
  }
  return (low + high) / 2;
}
