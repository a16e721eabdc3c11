// References: R through webR: glm(quasipoisson) on InsectSprays and warpbreaks, survival by hand and by R's own formulas
// on Freireich's leukaemia data (Freireich et al. 1963), enumeration with combn and expand.grid, ptukey on chickwts.
// Newcombe's interval is checked by its own equation, not against printed figures.
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import { gamesHowell } from './gamesHowell';
import { quasiPoisson } from './quasiPoisson';
import { leastSwapped, swappedApart } from './swapping';
import { midranks } from './ranks';
import { superiority, superiorityInBlocks } from './superiority';
import { type Seen, excessEvents, logRank, logRankScores } from './survival';

const r = await startR();

const close = (own: number, reference: number, digits = 8) =>
  expect(Math.abs(own - reference)).toBeLessThan(10 ** -digits * Math.max(1, Math.abs(reference)));

describe('counts by quasi-Poisson', () => {
  it('InsectSprays: ratios, dispersion and standard errors are those of glm', async () => {
    const [counts, sprays] = [
      await r.numbers('InsectSprays$count'),
      await r.numbers('as.integer(InsectSprays$spray)'),
    ];
    const fit = quasiPoisson(
      counts.map((count, i) => ({ count, treatment: sprays[i]! - 1, block: 0, exposure: 1 })),
      6,
      1,
    )!;
    const reference = await r.numbers(
      'local({ s <- summary(glm(count ~ spray, quasipoisson, InsectSprays, epsilon = 1e-14)); c(s$dispersion, s$df.residual, s$coefficients[-1, 1:2]) })',
    );
    close(fit.dispersion!, reference[0]!);
    expect(fit.df).toBe(reference[1]);
    for (let t = 1; t < 6; t++) {
      close(fit.logRatio(t, 0), reference[1 + t]!);
      close(Math.sqrt(fit.dispersion! * fit.variance(t, 0)), reference[6 + t]!);
    }
  });
  it('warpbreaks with wool as a block and an exposure', async () => {
    const [breaks, wool, tension] = [
      await r.numbers('warpbreaks$breaks'),
      await r.numbers('as.integer(warpbreaks$wool)'),
      await r.numbers('as.integer(warpbreaks$tension)'),
    ];
    const fit = quasiPoisson(
      breaks.map((count, i) => ({
        count,
        treatment: tension[i]! - 1,
        block: wool[i]! - 1,
        exposure: 1 + (i % 3),
      })),
      3,
      2,
    )!;
    const reference = await r.numbers(
      'local({ d <- warpbreaks; d$e <- 1 + (seq_len(nrow(d)) - 1) %% 3; s <- summary(glm(breaks ~ wool + tension + offset(log(e)), quasipoisson, d, epsilon = 1e-14)); c(s$dispersion, s$coefficients[3:4, 1:2]) })',
    );
    close(fit.dispersion!, reference[0]!);
    close(fit.logRatio(1, 0), reference[1]!);
    close(fit.logRatio(2, 0), reference[2]!);
    close(Math.sqrt(fit.dispersion! * fit.variance(2, 0)), reference[4]!);
  });
});

describe('exact p of ranks', () => {
  const units = (groups: number[][], ranks: number[]) => {
    let at = 0;
    return groups.flatMap((g, group) => g.map(() => ({ group, block: '', score: ranks[at++]! })));
  };
  it('two groups: every choice of R’s combn', async () => {
    const groups = [
      [3, 4, 4, 5, 2],
      [1, 2, 2, 3],
    ];
    const ranks = midranks(groups.flat());
    const [p] = await r.numbers(
      `local({ r <- c(${ranks.join()}); d <- apply(combn(9, 5), 2, function(k) mean(r[k]) - mean(r[-k])); mean(abs(d) >= abs(d[1]) - 1e-9) })`,
    );
    close(swappedApart(units(groups, ranks), 0)!, p!, 12);
  });
  it('more than two: the largest difference beside pmvnorm’s own integral by simulation, and ptukey', async () => {
    const groups = [
      [1, 5, 2, 7],
      [9, 12, 3, 11],
      [4, 10, 6, 8],
    ];
    const ranks = midranks(groups.flat());
    const [tukey] = await r.numbers(
      `local({ r <- c(${ranks.join()}); m <- tapply(r, rep(1:3, each = 4), mean); ptukey((max(m) - min(m)) / sqrt(var(r) / 4), 3, Inf, lower.tail = FALSE) })`,
    );
    close(swappedApart(units(groups, ranks), null)!, tukey!, 9);
    // Dunnett with a known spread: the larger of two z that correlate by a half.
    const [dunnett] = await r.numbers(
      `local({ r <- c(${ranks.join()}); m <- tapply(r, rep(1:3, each = 4), mean); z <- max(abs(m[2:3] - m[1])) / sqrt(2 * var(r) / 4)
        1 - integrate(function(u) dnorm(u) * (pnorm(z * sqrt(2) + u) - pnorm(-z * sqrt(2) + u))^2, -8, 8, rel.tol = 1e-10)$value })`,
    );
    close(swappedApart(units(groups, ranks), 0)!, dunnett!, 7);
  });
  it('the least p is that of the farthest arrangement', () => {
    expect(leastSwapped([[3, 3]])).toBe(0.1);
    expect(leastSwapped([[1, 1], [1, 1]])).toBe(0.5); // prettier-ignore
    // One more on a side can't be mirrored.
    expect(leastSwapped([[2, 3]])).toBe(0.1);
  });
});

describe('in how many pairs one is ahead', () => {
  it('is Wilcoxon’s W over m·n, with limits that solve Newcombe’s equation', async () => {
    const [a, b] = [
      [3, 4, 4, 5, 2],
      [1, 2, 2, 3, 4, 1],
    ];
    const own = superiority(a, b, 0.05);
    const [w] = await r.numbers(
      `suppressWarnings(wilcox.test(c(${a.join()}), c(${b.join()}), exact = FALSE)$statistic)`,
    );
    close(own.share, w! / 30, 12);
    const [z] = await r.numbers('qnorm(0.975)');
    for (const limit of [own.low, own.high]) {
      const others = (5 + 6) / 2 - 1;
      const v = (limit * (1 - limit) * (1 + others * ((1 - limit) / (2 - limit) + limit / (1 + limit)))) / 30;
      close(Math.abs(limit - own.share), z! * Math.sqrt(v), 9);
    }
    expect(superiority([5, 6], [1, 2], 0.05)).toMatchObject({ share: 1, high: 1 });
  });
  it('in blocks is a share of blocks with Wilson’s limits', async () => {
    const own = superiorityInBlocks(
      [
        [3, 1],
        [2, 1],
        [2, 2],
        [1, 2],
      ],
      0.05,
    );
    const [low, high] = await r.numbers('prop.test(2.5, 4, correct = FALSE)$conf.int');
    expect(own.share).toBe(0.625);
    close(own.low, low!);
    close(own.high, high!);
  });
});

describe('days until', () => {
  const seen = (text: string): Seen[] =>
    text.split(' ').map((t) => ({ time: Number.parseInt(t, 10), happened: !t.endsWith('+') }));
  const maintained = seen('6 6 6 6+ 7 9+ 10 10+ 11+ 13 16 17+ 19+ 20+ 22 23 25+ 32+ 32+ 34+ 35+');
  const placebo = seen('1 1 2 2 3 4 4 5 5 8 8 8 8 11 11 12 12 15 17 22 23');
  it('events less expected, squared over their variance, is the log-rank χ²', () => {
    const { excess, variance } = excessEvents(maintained, placebo);
    const scores = logRankScores([...maintained, ...placebo]);
    close((excess * excess) / variance, logRank([maintained, placebo]).chiSquare!, 10);
    // Kleinbaum and Klein, Survival Analysis: O − E of −10.25.
    expect(excess).toBeCloseTo(-10.25, 2);
    close(
      scores.slice(0, maintained.length).reduce((s, x) => s + x, 0),
      excess,
      10,
    );
    close(
      scores.reduce((s, x) => s + x, 0),
      0,
      10,
    );
  });
});

describe('each with its own spread', () => {
  it('chickwts: Games–Howell by R’s ptukey and t.test', async () => {
    const of = (feed: string) => r.numbers(`chickwts$weight[chickwts$feed == "${feed}"]`);
    const [casein, horsebean] = [await of('casein'), await of('horsebean')];
    const own = gamesHowell(casein, horsebean, 6, 0.05)!;
    const [t, df, p, half] = await r.numbers(
      'local({ x <- chickwts$weight[chickwts$feed == "casein"]; y <- chickwts$weight[chickwts$feed == "horsebean"]; t <- t.test(x, y); c(t$statistic, t$parameter, ptukey(abs(t$statistic) * sqrt(2), 6, t$parameter, lower.tail = FALSE), qtukey(0.95, 6, t$parameter) / sqrt(2) * t$stderr) })',
    );
    close(own.df, df!);
    close(own.difference / ((own.high - own.low) / 2), t! / (half! / (await r.numbers('local({ x <- chickwts$weight[chickwts$feed == "casein"]; y <- chickwts$weight[chickwts$feed == "horsebean"]; t.test(x, y)$stderr })'))[0]!), 5); // prettier-ignore
    close(own.p, p!, 6);
  });
  it('nothing to test where neither spreads more than rounding', () => {
    expect(gamesHowell([5, 5], [6, 6], 2, 0.05)).toBeNull();
    expect(gamesHowell([5], [6, 7], 2, 0.05)).toBeNull();
    expect(gamesHowell([5, 5.1], [6, 6], 2, 0.05, 0.01)).toBeNull();
  });
});
