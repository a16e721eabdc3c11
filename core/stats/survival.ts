import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { solve } from './solve';
import { chiSquareTail } from './mantelHaenszel';

/** When something happened, or that it hadn't when last seen. */
export interface Seen {
  time: number;
  happened: boolean;
}

/** A step of a survival curve: from this time on. */
export interface Step {
  time: number;
  atRisk: number;
  events: number;
  /** share to which it hasn't happened yet */
  survival: number;
  /** Greenwood's sum */
  greenwood: number;
}

/** The Kaplan–Meier curve (1958): a step at each time something happened. */
export function kaplanMeier(seen: readonly Seen[]): Step[] {
  const times = [...new Set(seen.filter((s) => s.happened).map((s) => s.time))].sort((a, b) => a - b);
  let [survival, greenwood] = [1, 0];
  return times.map((time) => {
    const atRisk = seen.filter((s) => s.time >= time).length;
    const events = seen.filter((s) => s.happened && s.time === time).length;
    survival *= 1 - events / atRisk;
    greenwood += events / (atRisk * (atRisk - events));
    return { time, atRisk, events, survival, greenwood };
  });
}

/** Curves that lie at one half but for rounding. */
const HALF = 1e-12;

/** Where a falling curve first comes to one half; on a stretch at exactly one half its middle to the next step. */
function halfTime(steps: readonly Step[], at: (s: Step) => number | null): number | null {
  for (const [i, s] of steps.entries()) {
    const value = at(s);
    if (value === null || value > 0.5 + HALF) continue;
    const next = steps[i + 1];
    return Math.abs(value - 0.5) <= HALF && next ? (s.time + next.time) / 2 : s.time;
  }
  return null;
}

interface Median {
  median: number | null;
  low: number | null;
  high: number | null;
}

/**
 * The median time with the interval of Brookmeyer and Crowley (1982) from log-log limits of the curve.
 * @returns null where a curve doesn't come down to one half
 */
export function medianTime(steps: readonly Step[], alpha: number): Median {
  const z = normalQuantile(1 - alpha / 2, 0, 1);
  const limit =
    (sign: 1 | -1) =>
    (s: Step): number | null => {
      if (s.survival === 0) return null;
      if (s.survival === 1) return 1;
      const log = Math.log(s.survival);
      return Math.exp(-Math.exp(Math.log(-log) + (sign * z * Math.sqrt(s.greenwood)) / -log));
    };
  return {
    median: halfTime(steps, (s) => s.survival),
    low: halfTime(steps, limit(1)),
    high: halfTime(steps, limit(-1)),
  };
}

interface LogRank {
  chiSquare: number | null;
  df: number;
  p: number | null;
}

/**
 * The log-rank test (Mantel 1966; Peto and Peto 1972) of two groups or more.
 * @returns nulls where nothing happened, or only when nobody else was left
 */
export function logRank(groups: readonly (readonly Seen[])[]): LogRank {
  const df = groups.length - 1;
  const times = [...new Set(groups.flat().flatMap((s) => (s.happened ? [s.time] : [])))];
  const excess = new Array<number>(df).fill(0);
  const variance = Array.from({ length: df }, () => new Array<number>(df).fill(0));
  for (const time of times) {
    const atRisk = groups.map((g) => g.filter((s) => s.time >= time).length);
    const events = groups.map((g) => g.filter((s) => s.happened && s.time === time).length);
    const n = atRisk.reduce((a, b) => a + b, 0);
    const d = events.reduce((a, b) => a + b, 0);
    for (let i = 0; i < df; i++) {
      excess[i]! += events[i]! - (d * atRisk[i]!) / n;
      if (n < 2) continue;
      const factor = (d * (n - d)) / (n - 1);
      for (let j = 0; j < df; j++) {
        variance[i]![j]! += factor * ((i === j ? atRisk[i]! / n : 0) - (atRisk[i]! * atRisk[j]!) / (n * n));
      }
    }
  }
  const solved = solve(variance, excess);
  if (solved === null) return { chiSquare: null, df, p: null };
  const chiSquare = excess.reduce((s, e, i) => s + e * solved[i]!, 0);
  return { chiSquare, df, p: chiSquareTail(chiSquare, df) };
}

/** How much oftener than by chance it happened to a. */
export interface Excess {
  /** events seen in a less those expected of it */
  excess: number;
  /** variance of that, by the hypergeometric */
  variance: number;
}

/**
 * Events of a against those expected if a and b were alike: what the log-rank test is made of, and Peto's estimate of how
 * much faster things happen in a (logarithm of the ratio of hazards ≈ excess / variance; Yusuf, Peto et al. 1985).
 *
 * @example excessEvents([{ time: 1, happened: true }], [{ time: 2, happened: true }]) // excess 0.5, variance 0.25
 */
export function excessEvents(a: readonly Seen[], b: readonly Seen[]): Excess {
  const all = [...a, ...b];
  let [excess, variance] = [0, 0];
  for (const time of new Set(all.flatMap((s) => (s.happened ? [s.time] : [])))) {
    const at = (g: readonly Seen[]) => g.filter((s) => s.time >= time).length;
    const d = all.filter((s) => s.happened && s.time === time).length;
    const own = a.filter((s) => s.happened && s.time === time).length;
    const [m, n] = [at(a), at(a) + at(b)];
    excess += own - (d * m) / n;
    if (n > 1) variance += (d * m * (n - m) * (n - d)) / (n * n * (n - 1));
  }
  return { excess, variance };
}

/**
 * Each unit's share in the log-rank test of these together: 1 for an event less the hazard gathered so far (Peto and Peto
 * 1972). A group's sum is its events less those expected of it.
 *
 * @example logRankScores([{ time: 1, happened: true }, { time: 2, happened: true }]) // [0.5, -0.5]
 */
export function logRankScores(all: readonly Seen[]): number[] {
  const inOrder = all.map((s, i) => ({ ...s, i })).sort((x, y) => x.time - y.time);
  const scores = new Array<number>(all.length);
  let hazard = 0;
  for (let from = 0; from < inOrder.length;) {
    let to = from;
    let happened = 0;
    for (; to < inOrder.length && inOrder[to]!.time === inOrder[from]!.time; to++)
      if (inOrder[to]!.happened) happened += 1;
    hazard += happened / (inOrder.length - from);
    for (; from < to; from++) scores[inOrder[from]!.i] = Number(inOrder[from]!.happened) - hazard;
  }
  return scores;
}
