/** What was counted of two groups in one stratum, and on how much. */
interface RateStratum {
  a: { count: number; exposure: number };
  b: { count: number; exposure: number };
}

interface RateRatio {
  /** a's rate as a multiple of b's; 0 or Infinity where one of them is empty */
  estimate: number;
  /** how far the counts lie from what a ratio lets one expect, in standard errors */
  score: (ratio: number) => number;
  /** the ratios whose score is nearer to 0 than so much; open ends are 0 and Infinity */
  interval: (critical: number) => { low: number; high: number };
}

/** Ratios are looked for between e⁻⁴⁰ and e⁴⁰. */
const FARTHEST = 40;

/**
 * Two rates by the score test of their ratio, given what was counted of both together in each stratum: it holds where one
 * of them is empty, and its interval is the test turned round. Units of a stratum are added up first.
 *
 * @param dispersion how much more units scatter than counts drawn by lot (1 where they don't)
 * @returns null where nothing was counted of either
 * Source: conditional score test of a ratio of Poisson rates (Przyborowski and Wilenski 1940; with one stratum Wilson's
 * interval of the share that is a's), the variance multiplied by the dispersion (quasi-likelihood, Wedderburn 1974).
 * @example rateRatio([{ a: { count: 0, exposure: 4 }, b: { count: 48, exposure: 4 } }], 1)!.interval(1.96).low // 0
 */
export function rateRatio(strata: readonly RateStratum[], dispersion: number): RateRatio | null {
  const telling = strata.filter(({ a, b }) => a.exposure > 0 && b.exposure > 0 && a.count + b.count > 0);
  if (telling.length === 0) return null;
  const score = (ratio: number): number => {
    let [excess, variance] = [0, 0];
    for (const { a, b } of telling) {
      const share = (ratio * a.exposure) / (ratio * a.exposure + b.exposure);
      excess += a.count - (a.count + b.count) * share;
      variance += (a.count + b.count) * share * (1 - share);
    }
    return excess / Math.sqrt(dispersion * variance);
  };
  const where = (target: number): number => {
    let [low, high] = [-FARTHEST, FARTHEST];
    for (let i = 0; i < 90; i++) {
      const middle = (low + high) / 2;
      if (score(Math.exp(middle)) > target) low = middle;
      else high = middle;
    }
    return Math.exp((low + high) / 2);
  };
  const [none, all] = [telling.every((s) => s.a.count === 0), telling.every((s) => s.b.count === 0)];
  return {
    estimate: none ? 0 : all ? Infinity : where(0),
    score,
    interval: (critical) => ({ low: none ? 0 : where(critical), high: all ? Infinity : where(-critical) }),
  };
}
