// References: R's metafor, by fixtures/networkMeta.json and the program beside it; R through webR, where the restricted
// likelihood is written out anew with dense matrices and found by optimize(); without differences between trials it is
// plain inverse-variance pooling, by hand.
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import metafor from './fixtures/networkMeta.json';
import { type TrialArm, networkMeta } from './networkMeta';

const r = await startR();

const arm = (trial: string, treatment: string, mean: number, sd: number, n: number): TrialArm => ({
  ...{ trial, treatment, mean, sd, n },
});
const pooled = (arms: TrialArm[], reference = 'Water') => {
  const found = networkMeta(arms, reference);
  if (!found.ok) throw new Error(found.error.tag);
  return found.value;
};

const network = [
  arm('1', 'Water', 50, 5, 6),
  arm('1', 'A', 58, 6, 6),
  arm('1', 'B', 63, 5, 6),
  arm('2', 'A', 70, 8, 4),
  arm('2', 'Water', 66, 7, 4),
  arm('3', 'B', 41, 4, 5),
  arm('3', 'C', 36, 4, 5),
  arm('4', 'Water', 20, 3, 8),
  arm('4', 'C', 26, 2, 8),
  arm('4', 'A', 19, 3, 8),
  arm('5', 'C', 55, 5, 6),
  arm('5', 'B', 59, 6, 6),
];

describe('random effects', () => {
  it('τ², effects and their errors are those of the likelihood written out in R', async () => {
    const list = (xs: (string | number)[]) =>
      `c(${xs.map((x) => (typeof x === 'string' ? `"${x}"` : x)).join(', ')})`;
    const answer = await r.numbers(`local({
      d <- data.frame(trial = ${list(network.map((a) => a.trial))}, t = ${list(network.map((a) => a.treatment))},
        m = ${list(network.map((a) => a.mean))}, s = ${list(network.map((a) => a.sd))}, n = ${list(network.map((a) => a.n))})
      products <- setdiff(unique(d$t), "Water"); p <- length(products)
      y <- c(); X <- NULL; S <- NULL; M <- NULL
      add <- function(big, block) { if (is.null(big)) return(block); k <- nrow(big); l <- nrow(block)
        out <- matrix(0, k + l, k + l); out[1:k, 1:k] <- big; out[k + 1:l, k + 1:l] <- block; out }
      for (one in unique(d$trial)) { a <- d[d$trial == one, ]; v <- a$s^2 / (a$n * a$m^2); k <- nrow(a) - 1
        y <- c(y, log(a$m[-1] / a$m[1]))
        for (i in 2:nrow(a)) { row <- (products == a$t[i]) - (products == a$t[1]); X <- rbind(X, row) }
        S <- add(S, matrix(v[1], k, k) + diag(v[-1], k)); M <- add(M, matrix(0.5, k, k) + diag(0.5, k)) }
      fit <- function(tau2) { V <- S + tau2 * M; W <- solve(V); A <- t(X) %*% W %*% X; b <- solve(A, t(X) %*% W %*% y)
        e <- y - X %*% b
        list(l = as.numeric(determinant(V)$modulus + determinant(A)$modulus + t(e) %*% W %*% e), b = b, C = solve(A)) }
      tau2 <- optimize(function(x) fit(x)$l, c(0, 1), tol = 1e-12)$minimum; f <- fit(tau2)
      th <- c(0, f$b); C <- matrix(0, p + 1, p + 1); C[-1, -1] <- f$C
      ps <- sapply(1:(p + 1), function(i) mean(sapply(setdiff(1:(p + 1), i), function(j)
        pnorm((th[i] - th[j]) / sqrt(C[i, i] + C[j, j] - 2 * C[i, j])))))
      c(tau2, 100 * (exp(th) - 1), 100 * (exp(th - qnorm(0.975) * sqrt(diag(C))) - 1), ps) })`);
    const own = pooled(network);
    expect(own.products.map((p) => p.name)).toEqual(['Water', 'A', 'B', 'C']);
    expect(own.tau2).toBeGreaterThan(0);
    expect(own.tau2).toBeCloseTo(answer[0]!, 7);
    own.products.forEach((p, i) => {
      expect(p.percent).toBeCloseTo(answer[1 + i]!, 4);
      expect(p.low).toBeCloseTo(answer[5 + i]!, 4);
      expect(p.pScore).toBeCloseTo(answer[9 + i]!, 6);
    });
    expect(own.products.map((p) => p.trials)).toEqual([3, 3, 3, 3]);
  });

  it('trials that agree: τ² is 0 and effects are pooled by inverse variance', () => {
    const arms = [
      ...[arm('1', 'Water', 50, 10, 4), arm('1', 'A', 60, 12, 4)],
      ...[arm('2', 'Water', 100, 10, 4), arm('2', 'A', 121, 12, 4)],
    ];
    const own = pooled(arms);
    expect(own.tau2).toBe(0);
    const [v1, v2] = [0.01 + 0.01, 0.0025 + 144 / (4 * 121 ** 2)];
    const theta = (Math.log(1.2) / v1 + Math.log(1.21) / v2) / (1 / v1 + 1 / v2);
    expect(own.products[1]!.percent).toBeCloseTo(100 * (Math.exp(theta) - 1), 9);
    expect(own.products[0]).toMatchObject({ percent: 0, low: 0, high: 0, trials: 2 });
    expect(own.products[0]!.pScore + own.products[1]!.pScore).toBeCloseTo(1, 12);
  });

  it('the order of a trial’s rows and the reference change no contrast', () => {
    const one = pooled(network);
    const other = pooled([...network].reverse());
    for (const p of one.products) {
      const twin = other.products.find((o) => o.name === p.name)!;
      expect(twin.percent).toBeCloseTo(p.percent, 6);
      expect(twin.pScore).toBeCloseTo(p.pScore, 8);
    }
    const toB = pooled(network, 'B');
    const [a, b] = [one.products[1]!, one.products[2]!].map((p) => Math.log1p(p.percent / 100)) as [
      number,
      number,
    ];
    expect(Math.log1p(toB.products.find((p) => p.name === 'A')!.percent / 100)).toBeCloseTo(a - b, 8);
    // One trial alone has no τ² to see.
    expect(pooled(network.slice(0, 3)).tau2).toBe(0);
  });
});

describe('R’s metafor', () => {
  it.each(metafor)('$what', ({ arms, tau2, products }) => {
    const own = pooled(arms);
    expect(own.tau2).toBeCloseTo(tau2, 7);
    expect(own.products.map((p) => p.name)).toEqual(products.map((p) => p.name));
    own.products.forEach((p, i) => {
      expect(p.percent).toBeCloseTo(products[i]!.percent, 4);
      expect(p.low).toBeCloseTo(products[i]!.low, 4);
      expect(p.high).toBeCloseTo(products[i]!.high, 4);
      expect(p.pScore).toBeCloseTo(products[i]!.pScore, 6);
    });
  });
});

it('what can’t be pooled is said, and which', () => {
  const tag = (arms: TrialArm[], reference = 'Water') => {
    const found = networkMeta(arms, reference);
    return found.ok ? 'ok' : found.error.tag;
  };
  expect(tag(network, 'Nobody')).toBe('unknownReference');
  expect(tag([...network, arm('6', 'D', 5, 1, 3)])).toBe('oneArm');
  expect(tag([...network, arm('1', 'A', 5, 1, 3)])).toBe('twice');
  expect(tag([...network, arm('6', 'D', 0, 1, 3), arm('6', 'E', 5, 1, 3)])).toBe('badMean');
  expect(tag([...network, arm('6', 'D', 5, 0, 3), arm('6', 'A', 5, 1, 3)])).toBe('badSd');
  expect(tag([...network, arm('6', 'D', 5, 1, 2.5), arm('6', 'A', 5, 1, 3)])).toBe('badN');
  expect(tag([...network, arm('6', 'D', 5, 1, 3), arm('6', 'E', 5, 1, 3)])).toBe('noPath');
});
