import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { type Result, err, ok } from '../model/result';

/** One treatment's result in one trial. */
export interface TrialArm {
  trial: string;
  treatment: string;
  mean: number;
  /** between units */
  sd: number;
  /** units */
  n: number;
}

/** A product over all trials, against the reference. */
interface PooledProduct {
  name: string;
  /** change against the reference, per cent, with normal limits */
  percent: number;
  low: number;
  high: number;
  /** mean certainty that it is better than another, 0 to 1 */
  pScore: number;
  /** trials it was in */
  trials: number;
}

export interface NetworkMeta {
  /** variance of true log ratios between trials */
  tau2: number;
  /** in order of first appearance, the reference among them */
  products: PooledProduct[];
}

type NetworkError =
  | { tag: 'unknownReference'; reference: string; known: string[] }
  | { tag: 'oneArm'; trial: string }
  | { tag: 'twice'; trial: string; treatment: string }
  | { tag: 'badMean'; trial: string; treatment: string; mean: number }
  | { tag: 'badSd'; trial: string; treatment: string; sd: number }
  | { tag: 'badN'; trial: string; treatment: string; n: number }
  | { tag: 'noPath'; product: string; reference: string };

export function describeNetworkError(e: NetworkError): string {
  switch (e.tag) {
    case 'unknownReference':
      return `The reference “${e.reference}” isn't among the treatments: ${e.known.join(', ')}.`;
    case 'oneArm':
      return `Trial “${e.trial}” has one treatment only: there is nothing to compare in it.`;
    case 'twice':
      return `Trial “${e.trial}” lists “${e.treatment}” twice.`;
    case 'badMean':
      return `Trial “${e.trial}”, “${e.treatment}”: a mean of ${e.mean} has no ratio; it must be above 0.`;
    case 'badSd':
      return `Trial “${e.trial}”, “${e.treatment}”: a standard deviation of ${e.sd} leaves nothing to weigh it by; it must be above 0.`;
    case 'badN':
      return `Trial “${e.trial}”, “${e.treatment}”: ${e.n} units can't be; at least 1, a whole number.`;
    case 'noPath':
      return `“${e.product}” shares no path of trials with “${e.reference}”: they can't be compared.`;
  }
}

type Matrix = number[][];
const zeros = (rows: number, columns: number): Matrix =>
  Array.from({ length: rows }, () => new Array<number>(columns).fill(0));

/** Inverse and log determinant of a symmetric positive definite matrix, by Gauss and Jordan. */
function inverse(m: Matrix): { inverse: Matrix; logDet: number } {
  const n = m.length;
  const a = m.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0))]);
  let logDet = 0;
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r]![c]!) > Math.abs(a[pivot]![c]!)) pivot = r;
    [a[c], a[pivot]] = [a[pivot]!, a[c]!];
    const by = a[c]![c]!;
    logDet += Math.log(Math.abs(by));
    for (let k = c; k < 2 * n; k++) a[c]![k]! /= by;
    for (let r = 0; r < n; r++) {
      const factor = a[r]![c]!;
      if (r === c || factor === 0) continue;
      for (let k = c; k < 2 * n; k++) a[r]![k]! -= factor * a[c]![k]!;
    }
  }
  return { inverse: a.map((row) => row.slice(n)), logDet };
}

const times = (a: Matrix, b: Matrix): Matrix =>
  a.map((row) => b[0]!.map((_, j) => row.reduce((s, x, k) => s + x * b[k]![j]!, 0)));
const transposed = (a: Matrix): Matrix => a[0]!.map((_, j) => a.map((row) => row[j]!));
const trace = (a: Matrix): number => a.reduce((s, row, i) => s + row[i]!, 0);

/** Contrasts of one trial against its first arm. */
interface TrialContrasts {
  /** log ratios, as a column */
  y: Matrix;
  /** which products each is of; the reference has no column */
  x: Matrix;
  /** sampling covariance: they share the first arm */
  s: Matrix;
  /** covariance of the trials' true log ratios for a τ² of 1: correlation ½ */
  m: Matrix;
}

function contrastsOf(
  arms: readonly TrialArm[],
  columnOf: ReadonlyMap<string, number>,
  p: number,
): TrialContrasts {
  const variance = (a: TrialArm) => a.sd ** 2 / (a.n * a.mean ** 2);
  const [base, ...others] = arms as [TrialArm, ...TrialArm[]];
  const x = others.map((arm) => {
    const row = new Array<number>(p).fill(0);
    const [own, first] = [columnOf.get(arm.treatment), columnOf.get(base.treatment)];
    if (own !== undefined) row[own]! += 1;
    if (first !== undefined) row[first]! -= 1;
    return row;
  });
  return {
    y: others.map((arm) => [Math.log(arm.mean / base.mean)]),
    x,
    s: others.map((arm, i) => others.map((_, j) => variance(base) + (i === j ? variance(arm) : 0))),
    m: others.map((_, i) => others.map((__, j) => (i === j ? 1 : 0.5))),
  };
}

interface Fit {
  theta: number[];
  covariance: Matrix;
  /** of the restricted log likelihood, for τ²: below 0 while τ² is too small */
  slope: number;
}

/** Generalised least squares for a τ², with the slope of the restricted likelihood there (Harville 1977). */
function fitAt(trials: readonly TrialContrasts[], p: number, tau2: number): Fit {
  const a = zeros(p, p);
  const b = zeros(p, 1);
  const weighted = trials.map((t) => {
    const v = t.s.map((row, i) => row.map((x, j) => x + tau2 * t.m[i]![j]!));
    const w = inverse(v).inverse;
    const wx = times(w, t.x);
    const xtwx = times(transposed(t.x), wx);
    const xtwy = times(transposed(wx), t.y);
    for (let i = 0; i < p; i++) {
      b[i]![0]! += xtwy[i]![0]!;
      for (let j = 0; j < p; j++) a[i]![j]! += xtwx[i]![j]!;
    }
    return { ...t, w, wx };
  });
  const covariance = inverse(a).inverse;
  const theta = times(covariance, b);
  let slope = 0;
  for (const { y, x, m, w, wx } of weighted) {
    const fitted = times(x, theta);
    const residual = y.map((row, i) => [row[0]! - fitted[i]![0]!]);
    const wr = times(w, residual);
    slope += trace(times(w, m)) - trace(times(covariance, times(transposed(wx), times(m, wx))));
    slope -= times(transposed(wr), times(m, wr))[0]![0]!;
  }
  return { theta: theta.map((row) => row[0]!), covariance, slope };
}

/** τ² by restricted maximum likelihood: where its slope is nought, or 0 where it never falls. */
function remlTau2(trials: readonly TrialContrasts[], p: number): number {
  const contrasts = trials.reduce((s, t) => s + t.y.length, 0);
  if (contrasts <= p || fitAt(trials, p, 0).slope >= 0) return 0;
  let high = 1e-4;
  while (fitAt(trials, p, high).slope < 0 && high < 1e6) high *= 2;
  let low = 0;
  for (let i = 0; i < 200 && high - low > 1e-15 * Math.max(1, high); i++) {
    const middle = (low + high) / 2;
    if (fitAt(trials, p, middle).slope < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function faultOf(arms: readonly TrialArm[], reference: string): NetworkError | null {
  const names = [...new Set(arms.map((a) => a.treatment))];
  if (!names.includes(reference)) return { tag: 'unknownReference', reference, known: names };
  const trials = new Map<string, string[]>();
  for (const { trial, treatment, mean, sd, n } of arms) {
    if (!(mean > 0)) return { tag: 'badMean', trial, treatment, mean };
    if (!(sd > 0)) return { tag: 'badSd', trial, treatment, sd };
    if (!Number.isInteger(n) || n < 1) return { tag: 'badN', trial, treatment, n };
    const own = trials.get(trial) ?? [];
    if (own.includes(treatment)) return { tag: 'twice', trial, treatment };
    trials.set(trial, [...own, treatment]);
  }
  for (const [trial, own] of trials) if (own.length < 2) return { tag: 'oneArm', trial };
  // Who can be reached from the reference by trials that compared them.
  const reached = new Set([reference]);
  for (let grew = true; grew;) {
    grew = false;
    for (const own of trials.values()) {
      if (!own.some((t) => reached.has(t))) continue;
      for (const t of own) {
        if (reached.has(t)) continue;
        reached.add(t);
        grew = true;
      }
    }
  }
  const apart = names.find((t) => !reached.has(t));
  return apart === undefined ? null : { tag: 'noPath', product: apart, reference };
}

/**
 * Network meta-analysis of products over trials: log ratios of means (Hedges et al. 1999) against each trial's first
 * row, sharing its variance; random effects with one τ² by REML and correlation ½ within a trial; P-scores of Rücker
 * and Schwarzer (2015), larger is better.
 *
 * @param arms one row a treatment in a trial; rows of a trial in the order it lists them
 * @param reference what per cents are against; every product must be linked to it by trials
 * @param alpha 1 − confidence of the limits
 * @example networkMeta(arms, 'Water').value.products[1].percent // 12.1
 */
export function networkMeta(
  arms: readonly TrialArm[],
  reference: string,
  alpha = 0.05,
): Result<NetworkMeta, NetworkError> {
  const fault = faultOf(arms, reference);
  if (fault) return err(fault);
  const names = [...new Set(arms.map((a) => a.treatment))];
  const columnOf = new Map(names.filter((n) => n !== reference).map((n, i) => [n, i]));
  const p = columnOf.size;
  const trials = [...new Set(arms.map((a) => a.trial))].map((trial) =>
    contrastsOf(
      arms.filter((a) => a.trial === trial),
      columnOf,
      p,
    ),
  );
  const tau2 = remlTau2(trials, p);
  const { theta, covariance } = fitAt(trials, p, tau2);
  const effect = (name: string) => (name === reference ? 0 : theta[columnOf.get(name)!]!);
  const shared = (a: string, b: string) =>
    a === reference || b === reference ? 0 : covariance[columnOf.get(a)!]![columnOf.get(b)!]!;
  const z = normalQuantile(1 - alpha / 2, 0, 1);
  const percent = (x: number) => 100 * (Math.exp(x) - 1);
  return ok({
    tau2,
    products: names.map((name) => {
      const se = Math.sqrt(shared(name, name));
      const certainty = names
        .filter((o) => o !== name)
        .map((o) => {
          const apart = Math.sqrt(shared(name, name) + shared(o, o) - 2 * shared(name, o));
          return normalCdf((effect(name) - effect(o)) / apart, 0, 1);
        });
      return {
        name,
        percent: percent(effect(name)),
        low: percent(effect(name) - z * se),
        high: percent(effect(name) + z * se),
        pScore: certainty.reduce((s, x) => s + x, 0) / certainty.length,
        trials: arms.filter((a) => a.treatment === name).length,
      };
    }),
  });
}
