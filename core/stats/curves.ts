import { solve } from './solve';

/** A value of a unit at a time. */
export interface Point {
  time: number;
  value: number;
}

/** Points by time, those of one time averaged. */
export function atTimes(points: readonly Point[]): Point[] {
  const byTime = new Map<number, number[]>();
  for (const p of points) byTime.set(p.time, [...(byTime.get(p.time) ?? []), p.value]);
  return [...byTime]
    .map(([time, values]) => ({ time, value: values.reduce((s, v) => s + v, 0) / values.length }))
    .sort((a, b) => a.time - b.time);
}

/**
 * Area under a curve by trapezoids, from the first to the last time.
 * @param points by time, each time once
 * @returns null with fewer than two times
 * @example areaUnder([{ time: 0, value: 2 }, { time: 4, value: 6 }]) // 16
 */
export function areaUnder(points: readonly Point[]): number | null {
  if (points.length < 2) return null;
  return points
    .slice(1)
    .reduce((s, p, i) => s + ((p.time - points[i]!.time) * (p.value + points[i]!.value)) / 2, 0);
}

/**
 * Relative growth rate: the least-squares slope of ln y on time, of values above 0.
 * @returns per unit of time; null with fewer than two times
 * @example relativeGrowthRate([{ time: 0, value: 1 }, { time: 2, value: Math.E }]) // 0.5
 */
export function relativeGrowthRate(points: readonly Point[]): number | null {
  const logs = points.filter((p) => p.value > 0).map((p) => ({ time: p.time, value: Math.log(p.value) }));
  if (new Set(logs.map((p) => p.time)).size < 2) return null;
  const [t, y] = [logs.reduce((s, p) => s + p.time, 0), logs.reduce((s, p) => s + p.value, 0)].map(
    (s) => s / logs.length,
  ) as [number, number];
  const across = logs.reduce((s, p) => s + (p.time - t) * (p.value - y), 0);
  return across / logs.reduce((s, p) => s + (p.time - t) ** 2, 0);
}

/** y = asymptote / (1 + exp(−rate·(t − midpoint))). */
export interface Logistic {
  asymptote: number;
  rate: number;
  midpoint: number;
}

const MOST_STEPS = 200;
const SETTLED = 1e-8;

const at = ([a, r, m]: readonly number[], t: number) => a! / (1 + Math.exp(-r! * (t - m!)));

const sumOfSquares = (points: readonly Point[], p: readonly number[]): number =>
  points.reduce((s, q) => s + (q.value - at(p, q.time)) ** 2, 0);

/** Where to begin: the logit of y against a top a little above the largest value, by a straight line. */
function begin(points: readonly Point[], above: number): number[] | null {
  const top = Math.max(...points.map((p) => p.value));
  if (!(top > 0)) return null;
  const asymptote = top * above;
  const logits = points
    .filter((p) => p.value > 0 && p.value < asymptote)
    .map((p) => ({ time: p.time, value: Math.log(p.value / (asymptote - p.value)) }));
  if (logits.length < 2) return null;
  const t = logits.reduce((s, p) => s + p.time, 0) / logits.length;
  const y = logits.reduce((s, p) => s + p.value, 0) / logits.length;
  const slope =
    logits.reduce((s, p) => s + (p.time - t) * (p.value - y), 0) /
    logits.reduce((s, p) => s + (p.time - t) ** 2, 0);
  return slope === 0 || !Number.isFinite(slope) ? null : [asymptote, slope, t - y / slope];
}

/** Gauss and Newton's steps, damped as Levenberg (1944) and Marquardt (1963) do. */
function settle(points: readonly Point[], start: readonly number[]): number[] | null {
  let now = [...start];
  let least = sumOfSquares(points, now);
  let damping = 1e-3;
  for (let step = 0; step < MOST_STEPS; step++) {
    const normal = [0, 1, 2].map(() => [0, 0, 0]);
    const right = [0, 0, 0];
    for (const { time, value } of points) {
      const [a, r, m] = now as [number, number, number];
      const e = Math.exp(-r * (time - m));
      const share = 1 / (1 + e);
      const slopes = [share, a * share * share * e * (time - m), -a * share * share * e * r];
      const rest = value - a * share;
      for (let i = 0; i < 3; i++) {
        right[i]! += slopes[i]! * rest;
        for (let j = 0; j < 3; j++) normal[i]![j]! += slopes[i]! * slopes[j]!;
      }
    }
    const damped = normal.map((row, i) => row.map((x, j) => (i === j ? x * (1 + damping) : x)));
    const by = solve(damped, right);
    if (by === null || by.some((x) => !Number.isFinite(x))) return null;
    const next = now.map((x, i) => x + by[i]!);
    const sum = sumOfSquares(points, next);
    if (Number.isFinite(sum) && sum <= least) {
      const moved = Math.max(...by.map((x, i) => Math.abs(x) / Math.max(Math.abs(next[i]!), 1e-12)));
      [now, least, damping] = [next, sum, damping / 10];
      if (moved < SETTLED) return now;
    } else {
      damping *= 10;
      if (damping > 1e12) return null;
    }
  }
  return null;
}

/**
 * A logistic curve by least squares.
 * @returns null with fewer than four times, or where no step settles (relative change below 1e-8 within 200 steps)
 */
export function logisticFit(points: readonly Point[]): Logistic | null {
  if (new Set(points.map((p) => p.time)).size < 4) return null;
  let best: { fit: number[]; sum: number } | null = null;
  for (const above of [1.02, 1.2, 2]) {
    const start = begin(points, above);
    const fit = start && settle(points, start);
    if (!fit) continue;
    const sum = sumOfSquares(points, fit);
    if (best === null || sum < best.sum) best = { fit, sum };
  }
  if (best === null) return null;
  const [asymptote, rate, midpoint] = best.fit as [number, number, number];
  return { asymptote, rate, midpoint };
}
