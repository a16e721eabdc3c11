// References: R's own functions and data through webR (fisher.test, mantelhaen.test, prop.test, p.adjust, kruskal.test,
// friedman.test, oneway anova on deviations); UCBAdmissions, InsectSprays, airquality, warpbreaks,
// esoph and OrchardSprays are R's own data.
// Newcombe (1998, Statistics in Medicine 17:873, table II): 56/70 against 48/80, method 10: 0.0524 to 0.3339.
// Freireich et al. (1963), remission of leukaemia: medians 8 and 23 weeks, log-rank χ² 16.79 (Kleinbaum and Klein).
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import { brownForsythe } from './brownForsythe';
import { fisherExact } from './fisherExact';
import { holm } from './holm';
import { mantelHaenszel } from './mantelHaenszel';
import { newcombe, wilson } from './proportion';
import { proportionPermutation } from './proportionPermutation';
import { cliffsDelta, dunn, friedman, kruskalWallis, leastRankDifference } from './ranks';
import { type Seen, kaplanMeier, logRank, medianTime } from './survival';

const r = await startR();

const close = (own: number | null, reference: number, digits = 10) =>
  expect(Math.abs(own! - reference)).toBeLessThan(10 ** -digits * Math.max(1, Math.abs(reference)));

describe('proportions', () => {
  it.each([
    [7, 20],
    [0, 12],
    [12, 12],
    [83, 91],
  ])('Wilson’s interval of %i of %i is that of prop.test', async (k, n) => {
    const [low, high] = await r.numbers(`prop.test(${k}, ${n}, correct = FALSE)$conf.int`);
    const own = wilson(k, n, 0.05);
    close(own.low, low!);
    close(own.high, high!);
  });
  it('Newcombe’s own example', () => {
    const d = newcombe(wilson(56, 70, 0.05), wilson(48, 80, 0.05));
    expect(d.difference).toBeCloseTo(0.2, 12);
    expect(d.low).toBeCloseTo(0.0524, 4);
    expect(d.high).toBeCloseTo(0.3339, 4);
  });
  it.each([
    [3, 4, 1, 4],
    [17, 20, 5, 20],
    [0, 9, 4, 10],
    [70, 120, 55, 131],
  ])('Fisher’s test of %i/%i against %i/%i', async (k1, n1, k2, n2) => {
    const [p] = await r.numbers(`fisher.test(matrix(c(${k1}, ${n1 - k1}, ${k2}, ${n2 - k2}), 2))$p.value`);
    close(fisherExact(k1, n1, k2, n2), p!, 9);
  });
  it('Cochran–Mantel–Haenszel on UCBAdmissions', async () => {
    const cells = await r.numbers('UCBAdmissions');
    const strata = Array.from({ length: 6 }, (_, d) => {
      const [a, b, c, e] = cells.slice(d * 4, d * 4 + 4) as [number, number, number, number];
      return { treatment: { k: a, n: a + b }, control: { k: c, n: c + e } };
    });
    const [chi, p, odds] = await r.numbers(
      'local({ t <- mantelhaen.test(UCBAdmissions, correct = FALSE); c(t$statistic, t$p.value, t$estimate) })',
    );
    const own = mantelHaenszel(strata);
    close(own.chiSquare, chi!, 8);
    close(own.p, p!, 8);
    close(own.oddsRatio, odds!, 8);
  });
  it('Cochran–Mantel–Haenszel on esoph: 120 g of alcohol a day and more against less than 40, by age', async () => {
    const table = `local({ d <- esoph[as.integer(esoph$alcgp) %in% c(1, 4), ]; d$high <- as.integer(d$alcgp) == 4;
      x <- aggregate(cbind(k = ncases, m = ncontrols) ~ high + agegp, d, sum); x[order(x$agegp, -x$high), ] })`;
    const [k, m] = [await r.numbers(`${table}$k`), await r.numbers(`${table}$m`)];
    const strata = Array.from({ length: k.length / 2 }, (_, i) => ({
      treatment: { k: k[2 * i]!, n: k[2 * i]! + m[2 * i]! },
      control: { k: k[2 * i + 1]!, n: k[2 * i + 1]! + m[2 * i + 1]! },
    }));
    const [chi, p, odds] = await r.numbers(
      `local({ x <- ${table}; a <- array(rbind(x$k, x$m), c(2, 2, nrow(x) / 2));
        t <- mantelhaen.test(a, correct = FALSE); c(t$statistic, t$p.value, t$estimate) })`,
    );
    const own = mantelHaenszel(strata);
    expect(strata.length).toBe(6);
    close(own.chiSquare, chi!, 8);
    close(own.p, p!, 8);
    close(own.oddsRatio, odds!, 8);
  });
  it('an odds ratio that is infinite, and strata that say nothing, are null', () => {
    expect(mantelHaenszel([{ treatment: { k: 3, n: 3 }, control: { k: 1, n: 3 } }]).oddsRatio).toBeNull();
    expect(mantelHaenszel([{ treatment: { k: 0, n: 3 }, control: { k: 0, n: 3 } }])).toEqual({
      oddsRatio: null,
      chiSquare: null,
      p: null,
    });
  });
  it('units swapped in every way, counted in R, inside strata too', async () => {
    const code = (strata: [string, string, string, string][]) => `local({
      s <- list(${strata.map(([ka, na, kb, nb]) => `list(k = c(${ka}, ${kb}), n = c(${na}, ${nb}), m = length(c(${ka})))`).join(', ')})
      ways <- lapply(s, function(x) combn(length(x$k), x$m))
      grid <- as.matrix(expand.grid(lapply(ways, function(w) seq_len(ncol(w)))))
      total <- c(sum(unlist(lapply(s, function(x) x$k))), sum(unlist(lapply(s, function(x) x$n))))
      stat <- apply(grid, 1, function(row) {
        k <- 0; n <- 0
        for (i in seq_along(s)) { w <- ways[[i]][, row[i]]; k <- k + sum(s[[i]]$k[w]); n <- n + sum(s[[i]]$n[w]) }
        abs(k / n - (total[1] - k) / (total[2] - n))
      })
      mean(stat >= stat[1] - 1e-9)
    })`;
    const [one] = await r.numbers(code([['3, 5, 4, 5', '5, 5, 5, 5', '1, 2, 0, 2', '5, 5, 4, 5']]));
    const units = (ks: number[], ns: number[]) => ks.map((k, i) => ({ k, n: ns[i]! }));
    close(
      proportionPermutation([{ a: units([3, 5, 4, 5], [5, 5, 5, 5]), b: units([1, 2, 0, 2], [5, 5, 4, 5]) }]),
      one!,
      12,
    );
    const [two] = await r.numbers(
      code([
        ['3, 5', '5, 5', '1, 2', '5, 5'],
        ['4, 5, 2', '5, 5, 5', '0, 2', '4, 5'],
      ]),
    );
    close(
      proportionPermutation([
        { a: units([3, 5], [5, 5]), b: units([1, 2], [5, 5]) },
        { a: units([4, 5, 2], [5, 5, 5]), b: units([0, 2], [4, 5]) },
      ]),
      two!,
      12,
    );
    expect(proportionPermutation([{ a: units([5], [5]), b: units([0, 0], [5, 5]) }])).toBeNull();
  });
  it('Holm', async () => {
    const ps = [0.01, 0.04, 0.03, 0.2, 0.001];
    const own = holm(ps);
    const reference = await r.numbers(`p.adjust(c(${ps.join(', ')}), "holm")`);
    own.forEach((p, i) => close(p, reference[i]!, 12));
    expect(holm([0.02, null, 0.03])).toEqual([0.04, null, 0.04]);
  });
});

describe('ranks', () => {
  const groups = async (code: string) => {
    const [values, of] = [await r.numbers(`${code}[[1]]`), await r.numbers(`${code}[[2]]`)];
    const levels = [...new Set(of)].sort((a, b) => a - b);
    return levels.map((l) => values.filter((_, i) => of[i] === l));
  };
  it('Kruskal–Wallis with ties: airquality and InsectSprays', async () => {
    for (const [code, call] of [
      ['list(InsectSprays$count, as.integer(InsectSprays$spray))', 'InsectSprays$count, InsectSprays$spray'],
      [
        'local({ a <- airquality[!is.na(airquality$Ozone), ]; list(a$Ozone, a$Month) })',
        'airquality$Ozone, airquality$Month',
      ],
    ] as const) {
      const own = kruskalWallis(await groups(code));
      const [h, df, p] = await r.numbers(
        `local({ t <- kruskal.test(${call}); c(t$statistic, t$parameter, t$p.value) })`,
      );
      close(own.statistic, h!);
      expect(own.df).toBe(df);
      close(own.p, p!);
    }
  });
  it('Dunn by its formula in R, with ties', async () => {
    const sprays = await groups('list(InsectSprays$count, as.integer(InsectSprays$spray))');
    const [z] = await r.numbers(`local({
      x <- InsectSprays$count; g <- InsectSprays$spray; k <- rank(x); n <- length(x); t <- table(x)
      v <- n * (n + 1) / 12 - sum(t^3 - t) / (12 * (n - 1)); m <- tapply(k, g, mean)
      (m[["C"]] - m[["A"]]) / sqrt(v * (1 / 12 + 1 / 12))
    })`);
    close(dunn(sprays, 2, 0).z, z!);
  });
  it('Friedman on OrchardSprays, the rows of its Latin square as blocks', async () => {
    const values = await r.numbers('with(OrchardSprays, tapply(decrease, list(rowpos, treatment), c))');
    const rows = Array.from({ length: 8 }, (_, row) => values.filter((_, i) => i % 8 === row));
    const [chi, df, p] = await r.numbers(
      'local({ t <- friedman.test(decrease ~ treatment | rowpos, OrchardSprays); c(t$statistic, t$parameter, t$p.value) })',
    );
    const own = friedman(rows);
    close(own.statistic, chi!);
    expect(df).toBe(7);
    close(own.p, p!, 8);
  });
  it('Friedman with ties, by friedman.test', async () => {
    const rows = [
      [5, 4, 7, 10],
      [6, 6, 7, 9],
      [3, 2, 3, 5],
      [7, 7, 7, 9],
      [8, 5, 6, 8],
    ];
    const [chi, df, p] = await r.numbers(
      `local({ t <- friedman.test(matrix(c(${rows.flat().join(', ')}), ${rows.length}, byrow = TRUE)); c(t$statistic, t$parameter, t$p.value) })`,
    );
    const own = friedman(rows);
    close(own.statistic, chi!);
    expect(own.df).toBe(df);
    close(own.p, p!);
    expect(own.rankSums.reduce((a, b) => a + b, 0)).toBe(50);
  });
  it('all equal: no figure, no p', () => {
    expect(
      kruskalWallis([
        [3, 3],
        [3, 3],
      ]).p,
    ).toBeNull();
    expect(
      friedman([
        [1, 1],
        [2, 2],
      ]).p,
    ).toBeNull();
    expect(dunn([[3, 3], [3]], 0, 1)).toEqual({ z: null, p: null });
  });
  it('Cliff’s delta by hand; least significant rank difference by its formula', () => {
    expect(cliffsDelta([2, 3], [1, 2])).toBe(0.75);
    expect(cliffsDelta([1], [1])).toBe(0);
    // 1.959964·√(8·4·5/6)
    expect(leastRankDifference(8, 4, 0.05)).toBeCloseTo(10.1212, 4);
  });
});

describe('evenness', () => {
  it('Brown–Forsythe: the F of deviations from the medians, warpbreaks', async () => {
    const values = await r.numbers('warpbreaks$breaks');
    const of = await r.numbers('as.integer(warpbreaks$tension)');
    const [f, df1, df2, p] = await r.numbers(`local({
      d <- with(warpbreaks, abs(breaks - ave(breaks, tension, FUN = median)))
      t <- anova(lm(d ~ warpbreaks$tension)); c(t[1, 4], t[1, 1], t[2, 1], t[1, 5])
    })`);
    const own = brownForsythe([1, 2, 3].map((l) => values.filter((_, i) => of[i] === l)));
    close(own.f, f!);
    expect([own.df1, own.df2]).toEqual([df1, df2]);
    close(own.p, p!);
  });
  it('groups without spread have no F', () => {
    expect(
      brownForsythe([
        [2, 2],
        [5, 5],
      ]).f,
    ).toBeNull();
  });
});

describe('times', () => {
  const at = (times: number[], still: number[]): Seen[] => [
    ...times.map((time) => ({ time, happened: true })),
    ...still.map((time) => ({ time, happened: false })),
  ];
  const drug = at([6, 6, 6, 7, 10, 13, 16, 22, 23], [6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35]);
  const placebo = at([1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23], []);
  it('Freireich’s leukaemia: medians and log-rank', () => {
    expect(medianTime(kaplanMeier(placebo), 0.05).median).toBe(8);
    expect(medianTime(kaplanMeier(drug), 0.05).median).toBe(23);
    // survival at 10 and 23 weeks, by Kleinbaum and Klein: 0.7529 and 0.4482
    const curve = kaplanMeier(drug);
    expect(curve.find((s) => s.time === 10)!.survival).toBeCloseTo(0.7529, 4);
    expect(curve.find((s) => s.time === 23)!.survival).toBeCloseTo(0.4482, 4);
    expect(logRank([drug, placebo]).chiSquare).toBeCloseTo(16.793, 3);
    expect(logRank([placebo, drug]).chiSquare).toBeCloseTo(16.793, 3);
  });
  it('the log-log limits are those of their formula in R', async () => {
    const [low] = await r.numbers(`local({
      s <- 1; v <- 0; t <- sort(unique(c(1,1,2,2,3,4,4,5,5,8,8,8,8,11,11,12,12,15,17,22,23)))
      x <- c(1,1,2,2,3,4,4,5,5,8,8,8,8,11,11,12,12,15,17,22,23); out <- NA
      for (u in t) { r <- sum(x >= u); d <- sum(x == u); s <- s * (1 - d / r); if (s == 0) break; v <- v + d / (r * (r - d))
        l <- exp(-exp(log(-log(s)) + qnorm(0.975) * sqrt(v) / -log(s))); if (l <= 0.5) { out <- u; break } }
      out
    })`);
    expect(medianTime(kaplanMeier(placebo), 0.05).low).toBe(low);
  });
  it('a stretch at exactly one half gives its middle; what isn’t reached is null', () => {
    expect(medianTime(kaplanMeier(at([2, 6], [])), 0.05).median).toBe(4);
    expect(medianTime(kaplanMeier(at([2], [5, 5])), 0.05).median).toBeNull();
    expect(medianTime(kaplanMeier(at([], [5, 5])), 0.05)).toEqual({ median: null, low: null, high: null });
    expect(logRank([at([], [3]), at([], [4])]).p).toBeNull();
  });
});
