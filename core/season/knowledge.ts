import { type Random, seededRandom } from '../stats/random';
import type { TrialArm } from '../stats/networkMeta';

/**
 * What is known of products over trials, on the log scale: a normal belief of every product's effect. It begins with what
 * products differ by (`prior`), and each trial adds what its contrasts tell: the trial's own level is nobody's merit and is
 * taken out. With a very wide prior its contrasts are those of the standings at the same variance between trials.
 */
export interface Knowledge {
  names: readonly string[];
  /** log effects, up to a common shift */
  mean: readonly number[];
  covariance: readonly (readonly number[])[];
}

export interface Spreads {
  /** standard deviation of products' true log effects before anything is known (0.12: one in three differs by over 12 %) */
  prior: number;
  /** variance of true log ratios between trials */
  tau2: number;
}

/** What products differ by where nothing is known (practice, from memory: most feeds lie within a quarter of each other). */
export const USUAL_PRIOR = 0.12;
/** Variance between trials where fewer than three show it (practice, from memory: a product's effect varies by about 5 %). */
export const USUAL_TAU2 = 0.05 ** 2;

/** Nothing known yet. */
export const nothingKnown = (names: readonly string[], { prior }: Pick<Spreads, 'prior'>): Knowledge => ({
  names,
  mean: names.map(() => 0),
  covariance: names.map((_, i) => names.map((__, j) => (i === j ? prior ** 2 : 0))),
});

/** One contrast was seen: so many of each product in it, its value, and the variance of that value. */
function updated(
  k: Knowledge,
  contrast: readonly number[],
  value: number | null,
  variance: number,
): Knowledge {
  const n = k.names.length;
  const through = k.covariance.map((row) => row.reduce((s, x, j) => s + x * contrast[j]!, 0));
  const all = contrast.reduce((s, c, i) => s + c * through[i]!, 0) + variance;
  const expected = contrast.reduce((s, c, i) => s + c * k.mean[i]!, 0);
  const off = value === null ? 0 : value - expected;
  return {
    names: k.names,
    mean: k.mean.map((m, i) => m + (through[i]! / all) * off),
    covariance: Array.from({ length: n }, (_, i) =>
      Array.from({ length: n }, (__, j) => k.covariance[i]![j]! - (through[i]! * through[j]!) / all),
    ),
  };
}

/** Contrasts of one trial's arms: each against the mean of those before it, weighted by what they weigh. */
function contrastsOf(variances: readonly number[]): { of: number[]; variance: number }[] {
  let weight = 1 / variances[0]!;
  return variances.slice(1).map((v, i) => {
    const before = variances.slice(0, i + 1).map((u) => 1 / u / weight);
    const variance = v + 1 / weight;
    weight += 1 / v;
    return { of: [...before.map((b) => -b), 1, ...variances.slice(i + 2).map(() => 0)], variance };
  });
}

/** Arms in a trial: which products, how sure each mean is. */
interface Seen {
  /** numbers of the products */
  arms: readonly number[];
  /** variance of each arm's log mean, that of the product from trial to trial included */
  variances: readonly number[];
  /** log means; null: not run yet */
  values: readonly number[] | null;
}

/** What is known after a trial; without values only how sure it will be. */
export function afterTrial(k: Knowledge, { arms, variances, values }: Seen): Knowledge {
  return contrastsOf(variances).reduce((now, { of, variance }) => {
    const contrast = k.names.map(() => 0);
    of.forEach((c, i) => (contrast[arms[i]!]! += c));
    return updated(now, contrast, values && of.reduce((s, c, i) => s + c * values[i]!, 0), variance);
  }, k);
}

/** Trials in which two of them stood side by side, each with their arms: one alone tells nothing of a difference. */
export function telling(names: readonly string[], arms: readonly TrialArm[]): TrialArm[][] {
  const trials = new Map<string, TrialArm[]>();
  for (const a of arms)
    if (names.includes(a.treatment)) trials.set(a.trial, [...(trials.get(a.trial) ?? []), a]);
  return [...trials.values()].filter((own) => own.length > 1);
}

/**
 * What finished trials tell.
 * @param names products that matter; arms of others are left out
 */
export function knowledgeOf(
  names: readonly string[],
  arms: readonly TrialArm[],
  spreads: Spreads,
): Knowledge {
  let known = nothingKnown(names, spreads);
  for (const own of telling(names, arms)) {
    known = afterTrial(known, {
      arms: own.map((a) => names.indexOf(a.treatment)),
      variances: own.map((a) => spreads.tau2 / 2 + a.sd ** 2 / (a.n * a.mean ** 2)),
      values: own.map((a) => Math.log(a.mean)),
    });
  }
  return known;
}

/** Variance of the difference of two products. */
export const varianceOf = (k: Knowledge, i: number, j: number): number =>
  k.covariance[i]![i]! + k.covariance[j]![j]! - 2 * k.covariance[i]![j]!;

/** A way to draw effects that may be true (Cholesky). */
export function drawer(k: Knowledge): (random: Random) => number[] {
  const n = k.names.length;
  const root = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      const rest = k.covariance[i]![j]! - root[i]!.slice(0, j).reduce((s, x, q) => s + x * root[j]![q]!, 0);
      root[i]![j] = i === j ? Math.sqrt(Math.max(0, rest)) : root[j]![j]! > 1e-12 ? rest / root[j]![j]! : 0;
    }
  return (random) => {
    const z = root.map(() => random.normal());
    return root.map((row, i) => k.mean[i]! + row.slice(0, i + 1).reduce((s, x, q) => s + x * z[q]!, 0));
  };
}

/** The number of the largest of some. */
export const bestOf = (values: readonly number[], among: readonly number[]): number =>
  among.reduce((best, i) => (values[i]! > values[best]! ? i : best), among[0]!);

/**
 * How often, 0 … 1, two products are the two best, by draws from what is known. @returns a square, symmetric
 */
export function topTwo(k: Knowledge, among: readonly number[], seed: number, draws = 300): number[][] {
  const random = seededRandom(seed);
  const draw = drawer(k);
  const counted = k.names.map(() => k.names.map(() => 0));
  for (let d = 0; d < draws; d++) {
    const theta = draw(random);
    const first = bestOf(theta, among);
    const second = bestOf(
      theta,
      among.filter((i) => i !== first),
    );
    counted[first]![second]! += 1 / draws;
    counted[second]![first]! += 1 / draws;
  }
  return counted;
}
