/**
 * The R side of Palazzo's findings: one function for each method, in base R. Written to be read by a statistician beside
 * the TypeScript of `core/analysis/methods`; `rScript.reference.test.ts` runs both on the same data.
 */
export const rLibrary = String.raw`
# ---- shared ------------------------------------------------------------------

nothing <- function(difference) c(difference = difference, low = NA, high = NA, p = NA)

# How many comparisons share the error: those with the control; every pair among equals.
family_of <- function(arms, f) if (f$peers) choose(length(arms), 2) else length(arms) - 1

# Each arm against the control.
against_control <- function(arms, f, one) {
  others <- setdiff(arms, f$control)
  found <- lapply(others, function(a) one(a, f$control, family_of(arms, f)))
  data.frame(arm = others, do.call(rbind, found))
}

blocks_of <- function(d) if (all(!is.na(d$block))) d$block else rep("", nrow(d))

# ---- means by the linear model; Dunnett, or Tukey-Kramer among equals ---------------

product_form <- function(rho) {
  k <- nrow(rho)
  if (k == 1) return(0)
  if (k == 2) return(rep(sqrt(abs(rho[1, 2])), 2))
  lambda <- sapply(seq_len(k), function(i) {
    j <- i %% k + 1; m <- (i + 1) %% k + 1
    sqrt(rho[i, j] * rho[i, m] / rho[j, m])
  })
  if (any(is.na(lambda)) || any(lambda >= 0.9999)) return(NULL)
  off <- outer(lambda, lambda) - rho; diag(off) <- 0
  if (any(abs(off) > 1e-9)) NULL else lambda
}

# P(all |z| <= x) for a known spread. Correlations lambda[i] * lambda[j]: integrated over
# the common factor.
product_probability <- function(lambda) {
  z <- seq(-8.5, 8.5, by = 0.05); w <- dnorm(z) * 0.05; c <- sqrt(1 - lambda^2)
  function(x) sum(w * Reduce("*", lapply(seq_along(lambda), function(i)
    pnorm((x + lambda[i] * z) / c[i]) - pnorm((lambda[i] * z - x) / c[i]))))
}

# Any other correlations: a Korobov lattice over the dimensions (Genz 1992), good to about 1e-5.
lattice_probability <- function(rho, points = 2039, generator = 864) {
  k <- nrow(rho); l <- t(chol(rho)); step <- 1; baker <- list()
  for (i in seq_len(k - 1)) {
    baker[[i]] <- abs(2 * (((seq_len(points) - 0.5) * step / points) %% 1) - 1)
    step <- (step * generator) %% points
  }
  function(x) {
    if (x == 0) return(0)
    y <- matrix(0, points, k); total <- rep(1, points)
    for (i in seq_len(k)) {
      shift <- if (i == 1) 0 else as.vector(y[, seq_len(i - 1), drop = FALSE] %*% l[i, seq_len(i - 1)])
      from <- pnorm((-x - shift) / l[i, i]); width <- pnorm((x - shift) / l[i, i]) - from
      total <- total * width
      if (i < k) y[, i] <- qnorm(pmin(pmax(from + baker[[i]] * width, 1e-15), 1 - 1e-15))
    }
    mean(total)
  }
}

# The spread is estimated on df: the chance for a known one, weighted by where its
# estimate may lie (trapezoidal rule over its logarithm).
over_spread <- function(known, df) {
  at <- seq(0, 9.5, by = 0.05); table <- splinefun(at, sapply(at, known))
  u <- seq(-45 / df - 1, 2.5, by = 0.02 * min(1, sqrt(2 / df) * 3)); s <- exp(u)
  w <- 2 * df * s^2 * dchisq(df * s^2, df) * (u[2] - u[1])
  function(x) min(1, sum(w * ifelse(x * s > 9.4, 1, table(pmin(x * s, 9.5)))))
}

dunnett_known <- new.env()
dunnett <- function(rho, df, alpha) {
  key <- paste(c(df, alpha, round(rho, 10)), collapse = " ")
  if (!is.null(dunnett_known[[key]])) return(dunnett_known[[key]])
  lambda <- product_form(rho)
  inside <- if (nrow(rho) == 1) function(x) 1 - 2 * pt(-x, df)
    else over_spread(if (is.null(lambda)) lattice_probability(rho) else product_probability(lambda), df)
  critical <- if (nrow(rho) == 1) qt(1 - alpha / 2, df)
    else uniroot(function(x) inside(x) - (1 - alpha), qt(1 - alpha / 2, df) * c(0.999, 3), extendInt = "upX", tol = 1e-10)$root
  dunnett_known[[key]] <- list(critical = critical, p = function(t) max(0, 1 - inside(abs(t))))
  dunnett_known[[key]]
}

linear <- function(d, f, arms) {
  y <- d$value - d$value[1]
  t <- factor(d$arm, levels = c(f$control, setdiff(arms, f$control)))
  b <- factor(d$block); k <- factor(d$column)
  fit <- lm(reformulate(c(if (nlevels(b) > 1) "b", if (nlevels(k) > 1) "k", "t"), "y"))
  own <- paste0("t", levels(t)[-1])
  if (any(is.na(coef(fit)[own]))) return(NULL)
  difference <- coef(fit)[own]; df <- df.residual(fit); rss <- sum(resid(fit)^2)
  if (rss <= sum(y^2) * length(y) * .Machine$double.eps^2 * 32) rss <- 0
  tested <- df > 0 && rss / df > f$least
  v <- summary.lm(fit)$cov.unscaled[own, own, drop = FALSE]
  tests <- sapply(seq_along(own), function(i) {
    if (!tested) return(c(NA, NA, NA))
    se <- sqrt(rss / df * v[i, i]); t <- abs(difference[i]) / se
    if (f$peers) {
      g <- length(arms)
      half <- uniroot(function(q) ptukey(q, g, df) - (1 - f$alpha), c(0.1, 20), extendInt = "upX", tol = 1e-10)$root / sqrt(2) * se
      p <- ptukey(t * sqrt(2), g, df, lower.tail = FALSE)
    } else {
      family <- dunnett(v / sqrt(outer(diag(v), diag(v))), df, f$alpha)
      half <- family$critical * se; p <- family$p(t)
    }
    c(difference[i] - half, difference[i] + half, p)
  })
  data.frame(arm = as.integer(levels(t)[-1]), difference = unname(difference), low = tests[1, ], high = tests[2, ], p = tests[3, ])
}

log <- function(d, f, arms) {
  if (any(d$value <= 0)) return(NULL)
  d$value <- base::log(d$value); f$least <- 0
  found <- linear(d, f, arms)
  found[c("difference", "low", "high")] <- exp(found[c("difference", "low", "high")])
  found
}

# ---- means, each with its own spread (Games and Howell) -----------------------------

welch <- function(d, f, arms) against_control(arms, f, function(a, b, family) {
  x <- d$value[d$arm == a]; y <- d$value[d$arm == b]; difference <- mean(x) - mean(y)
  if (length(x) < 2 || length(y) < 2) return(nothing(difference))
  v <- var(x) / length(x); w <- var(y) / length(y)
  if (v + w <= f$least * (1 / length(x) + 1 / length(y))) return(nothing(difference))
  se <- sqrt(v + w); df <- (v + w)^2 / (v^2 / (length(x) - 1) + w^2 / (length(y) - 1)); g <- length(arms)
  half <- uniroot(function(q) ptukey(q, g, df) - (1 - f$alpha), c(0.1, 20), extendInt = "upX", tol = 1e-10)$root / sqrt(2) * se
  c(difference = difference, low = difference - half, high = difference + half,
    p = ptukey(abs(difference) / se * sqrt(2), g, df, lower.tail = FALSE))
})

# ---- means by swapping labels ------------------------------------------------------

MOST_EXACT <- 2e6
MOST_SWAPPED <- 2e5

# For each way to choose m of the values: their sum, and how many are among the first m.
all_choices <- function(v, m) {
  if (m == 0) return(list(sum = 0, own = 0))
  ch <- matrix(combn(length(v), m), nrow = m)
  list(sum = colSums(matrix(v[ch], nrow = m)), own = colSums(matrix(ch <= m, nrow = m)))
}
arrangements_of <- function(blocks) prod(sapply(blocks, function(x) choose(length(x$a) + length(x$b), length(x$a))))

swap_test <- function(blocks, most = MOST_EXACT) {
  a <- unlist(lapply(blocks, function(x) x$a)); b <- unlist(lapply(blocks, function(x) x$b))
  m <- length(a); n <- length(b); total <- sum(a, b); observed <- sum(a)
  exact <- arrangements_of(blocks) <= most
  sums <- 0; owns <- 0
  for (x in blocks) {
    v <- c(x$a, x$b); k <- length(x$a)
    if (exact) {
      own <- all_choices(v, k)
      sums <- as.vector(outer(own$sum, sums, "+")); owns <- as.vector(outer(own$own, owns, "+"))
    } else {
      drawn <- replicate(1e5, sample.int(length(v), k))
      drawn <- matrix(drawn, nrow = k)
      sums <- sums + colSums(matrix(v[drawn], nrow = k)); owns <- owns + colSums(matrix(drawn <= k, nrow = k))
    }
  }
  range <- max(a, b) - min(a, b); slack <- 1e-9 * range; scale <- 1 / m + 1 / n
  p_of <- function(shift) {
    rest <- (total - shift * m) / n
    seen <- abs((observed - shift * m) * scale - rest) - slack
    extreme <- sum(abs((sums - shift * owns) * scale - rest) >= seen)
    if (exact) extreme / length(sums) else (extreme + 1) / (length(sums) + 1)
  }
  difference <- observed / m - (total - observed) / n
  list(difference = difference, p = p_of(0), interval = function(alpha) {
    reach <- 2 * (if (range > 0) range else if (difference != 0) abs(difference) else 1)
    end <- function(sign) {
      inside <- difference; outside <- difference + sign * reach
      if (p_of(outside) > alpha) return(NA)
      for (i in 1:40) {
        if (abs(outside - inside) <= 1e-10 * reach) break
        middle <- (inside + outside) / 2
        if (p_of(middle) > alpha) inside <- middle else outside <- middle
      }
      inside
    }
    ends <- c(end(-1), end(1))
    if (any(is.na(ends))) c(NA, NA) else ends
  })
}

in_blocks <- function(d, a, b, value) {
  block <- blocks_of(d)
  lapply(unique(block), function(k) list(a = value[d$arm == a & block == k], b = value[d$arm == b & block == k]))
}

permutation <- function(d, f, arms) against_control(arms, f, function(a, b, family) {
  found <- swap_test(in_blocks(d, a, b, d$value))
  ends <- found$interval(f$alpha / family)
  c(difference = found$difference, low = ends[1], high = ends[2], p = if (is.na(ends[1])) NA else min(1, found$p * family))
})

# ---- k of n -----------------------------------------------------------------------

wilson <- function(k, n, alpha) {
  z <- qnorm(1 - alpha / 2); p <- k / n
  middle <- (p + z^2 / (2 * n)) / (1 + z^2 / n)
  half <- z / (1 + z^2 / n) * sqrt(p * (1 - p) / n + z^2 / (4 * n^2))
  c(p, if (k == 0) 0 else max(0, middle - half), if (k == n) 1 else min(1, middle + half))
}

scatter_of <- function(d) {
  chi <- 0; df <- 0
  for (a in unique(d$arm)) {
    own <- d[d$arm == a, ]; df <- df + nrow(own) - 1
    p <- sum(own$k) / sum(own$n)
    if (p == 0 || p == 1) next
    use <- own$n > 0
    chi <- chi + sum((own$k[use] - own$n[use] * p)^2 / (own$n[use] * p * (1 - p)))
  }
  if (df > 0) chi / df else NA
}

swap_units <- function(d, a, b) {
  own <- d[d$arm %in% c(a, b), ]; block <- blocks_of(d)[d$arm %in% c(a, b)]
  if (sum(own$arm == a) < 2 || sum(own$arm == b) < 2) return(NA)
  K <- sum(own$k); N <- sum(own$n)
  gap <- function(k, n) ifelse(n == 0 | n == N, 0, abs(k / n - (K - k) / (N - n)))
  seen <- gap(sum(own$k[own$arm == a]), sum(own$n[own$arm == a]))
  shares <- (own$k / own$n)[own$n > 0]
  seen <- seen - 1e-9 * (max(shares) - min(shares))
  groups <- split(seq_len(nrow(own)), factor(block, levels = unique(block)))
  counts <- prod(sapply(groups, function(i) choose(length(i), sum(own$arm[i] == a))))
  if (counts > MOST_SWAPPED) {
    score <- own$k - own$n * K / N; total <- 0; v <- 0
    for (i in groups) {
      m <- sum(own$arm[i] == a); w <- length(i); e <- score[i] - mean(score[i])
      total <- total + sum(e[own$arm[i] == a])
      if (w > 1) v <- v + m * (w - m) / (w * (w - 1)) * sum(e^2)
    }
    return(if (v > 1e-12) 2 * pnorm(-abs(total) / sqrt(v)) else NA)
  }
  k <- 0; n <- 0
  for (i in groups) {
    i <- i[order(own$arm[i] != a)]; m <- sum(own$arm[i] == a)
    k <- as.vector(outer(all_choices(own$k[i], m)$sum, k, "+"))
    n <- as.vector(outer(all_choices(own$n[i], m)$sum, n, "+"))
  }
  mean(gap(k, n) >= seen)
}

least_swapped <- function(d, a, b) {
  sizes <- table(factor(blocks_of(d)), d$arm)
  a <- sizes[, as.character(a)]; b <- sizes[, as.character(b)]
  min(1, (if (all(a == b)) 2 else 1) / prod(choose(a + b, a)))
}

# Where so few units can be swapped that nothing could be told: Cochran-Mantel-Haenszel over the scatter of all units.
by_scatter <- function(d, a, b, scatter) {
  df <- nrow(d) - length(unique(d$arm)); excess <- 0; v <- 0
  if (df < 8) return(NA)
  block <- blocks_of(d)
  for (g in unique(block)) {
    x <- d[block == g & d$arm == a, ]; y <- d[block == g & d$arm == b, ]
    n <- sum(x$n); m <- sum(y$n); k <- sum(x$k) + sum(y$k)
    if (n == 0 || m == 0) next
    excess <- excess + sum(x$k) - n * k / (n + m)
    v <- v + n * m * k * (n + m - k) / ((n + m)^2 * (n + m - 1))
  }
  if (v > 0) 2 * pt(-sqrt(excess^2 / v / scatter), df) else 1
}

proportions <- function(d, f, arms) {
  scatter <- scatter_of(d); scatter <- max(1, if (is.na(scatter)) 1 else scatter)
  against_control(arms, f, function(a, b, family) {
    share <- function(x) {
      own <- d[d$arm == x, ]
      wilson(sum(own$k) / scatter, sum(own$n) / scatter, f$alpha / family)
    }
    x <- share(a); y <- share(b); difference <- x[1] - y[1]
    alone <- sum(d$arm == a) < 2 || sum(d$arm == b) < 2
    p <- if (alone) NA else if (least_swapped(d, a, b) * family > f$alpha) by_scatter(d, a, b, scatter) else swap_units(d, a, b)
    if (is.na(p)) return(nothing(100 * difference))
    low <- difference - sqrt((x[1] - x[2])^2 + (y[3] - y[1])^2)
    high <- difference + sqrt((x[3] - x[1])^2 + (y[1] - y[2])^2)
    p <- min(1, p * family)
    # An interval that the units themselves don't bear out ends at nought.
    if (p > f$alpha) { low <- min(0, low); high <- max(0, high) }
    c(difference = 100 * difference, low = 100 * low, high = 100 * high, p = p)
  })
}

# ---- scores and ranks ----------------------------------------------------------------

JUST_CLEAR <- 1e-6

# Exact p of a difference of mean ranks: every way to hand out the ranks of all units.
rank_difference <- function(groups, i, j) {
  r <- round(2 * rank(unlist(groups))); from <- c(0, cumsum(lengths(groups)))
  total <- function(g) sum(r[from[g] + seq_along(groups[[g]])])
  m <- length(groups[[i]]); n <- length(groups[[j]])
  gcd <- function(a, b) if (b == 0) a else gcd(b, a %% b)
  up <- n / gcd(m, n); down <- m / gcd(m, n); s <- sort(r, decreasing = TRUE)
  reach <- max(up * sum(s[1:m]), down * sum(s[1:n])); width <- 2 * reach + 1
  ways <- array(0, c(m + 1, n + 1, width)); ways[1, 1, reach + 1] <- 1
  moved <- function(x, by) if (by >= 0) c(rep(0, by), x[seq_len(width - by)]) else c(x[(1 - by):width], rep(0, -by))
  for (one in r) for (a in m:0) for (b in n:0) {
    add <- 0
    if (a > 0) add <- add + moved(ways[a, b + 1, ], up * one)
    if (b > 0) add <- add + moved(ways[a + 1, b, ], -down * one)
    if (a > 0 || b > 0) ways[a + 1, b + 1, ] <- ways[a + 1, b + 1, ] + add
  }
  rank_tail(ways[m + 1, n + 1, ], reach, up * total(i) - down * total(j))
}

rank_tail <- function(ways, none, observed) {
  at <- abs(seq_along(ways) - 1 - none)
  c(p = sum(ways[at >= abs(observed)]) / sum(ways), least = sum(ways[at == max(at[ways > 0])]) / sum(ways))
}

# The same within blocks: each pair of ranks of a block is as likely as any other.
rank_sums <- function(rows, i, j) {
  r <- round(2 * t(apply(rows, 1, rank))); reach <- 2 * length(rows); width <- 2 * reach + 1
  ways <- rep(0, width); ways[reach + 1] <- 1
  for (b in seq_len(nrow(r))) {
    gaps <- outer(r[b, ], r[b, ], "-"); gaps <- gaps[row(gaps) != col(gaps)]
    nxt <- rep(0, width)
    for (g in gaps) { to <- seq_len(width) + g; ok <- to >= 1 & to <= width; nxt[to[ok]] <- nxt[to[ok]] + ways[ok] }
    ways <- nxt
  }
  rank_tail(ways, reach, sum(r[, i] - r[, j]))
}

dunn_p <- function(groups, i, j) {
  all <- unlist(groups); N <- length(all); ties <- sum(table(all)^3 - table(all))
  v <- N * (N + 1) / 12 - ties / (12 * (N - 1))
  if (v <= 1e-12) return(NA)
  r <- split(rank(all), rep(seq_along(groups), lengths(groups)))
  z <- (mean(r[[i]]) - mean(r[[j]])) / sqrt(v * (1 / length(r[[i]]) + 1 / length(r[[j]])))
  2 * pnorm(-abs(z))
}

superiority <- function(a, b, alpha) {
  share <- (mean(sign(outer(a, b, "-"))) + 1) / 2; z <- qnorm(1 - alpha / 2)
  m <- length(a); n <- length(b); others <- (m + n) / 2 - 1
  half <- function(s) z * sqrt(s * (1 - s) * (1 + others * ((1 - s) / (2 - s) + s / (1 + s))) / (m * n))
  root <- function(g, from, to) if (g(from) >= 0) from else if (g(to) <= 0) to else uniroot(g, c(from, to), tol = 1e-13)$root
  c(share, if (share == 0) 0 else root(function(s) s + half(s) - share, 0, share),
    if (share == 1) 1 else root(function(s) s - half(s) - share, share, 1))
}

scores <- function(d, f, arms) {
  groups <- lapply(arms, function(a) d$value[d$arm == a])
  cells <- table(d$block, d$arm)
  complete <- all(!is.na(d$block)) && nrow(cells) > 1 && all(cells == 1)
  rows <- if (complete) t(sapply(unique(d$block), function(k) sapply(arms, function(a) d$value[d$arm == a & d$block == k])))
  if (length(unique(d$value)) < 2) return(against_control(arms, f, function(a, b, family) nothing(0.5)))
  against_control(arms, f, function(a, b, family) {
    i <- match(a, arms); j <- match(b, arms); alpha <- f$alpha / family
    if (complete) {
      s <- wilson(sum((sign(rows[, i] - rows[, j]) + 1) / 2), nrow(rows), alpha)
      chance <- rank_sums(rows, i, j)
    } else {
      s <- superiority(groups[[i]], groups[[j]], alpha)
      chance <- if (nrow(d) <= 24) rank_difference(groups, i, j) else c(p = dunn_p(groups, i, j), least = 0)
    }
    if (is.na(chance["p"]) || chance["least"] * family > f$alpha) return(nothing(s[1]))
    p <- min(1, chance[["p"]] * family); low <- s[2]; high <- s[3]
    if (p > f$alpha || s[1] == 0.5) { low <- min(low, 0.5); high <- max(high, 0.5) }
    else if (s[1] > 0.5) low <- max(low, 0.5 + JUST_CLEAR) else high <- min(high, 0.5 - JUST_CLEAR)
    c(difference = s[1], low = low, high = high, p = p)
  })
}

# ---- days until -----------------------------------------------------------------------

times <- function(d, f, arms) against_control(arms, f, function(a, b, family) {
  own <- d[d$arm %in% c(a, b), ]; own <- own[order(own$arm != a), ]
  mine <- own$arm == a; event <- own$happened == 1
  excess <- 0; variance <- 0; hazard <- rep(0, nrow(own))
  for (t in sort(unique(own$time[event]))) {
    n <- sum(own$time >= t); m <- sum(own$time >= t & mine); e <- sum(event & own$time == t)
    excess <- excess + sum(event & own$time == t & mine) - e * m / n
    if (n > 1) variance <- variance + e * m * (n - m) * (n - e) / (n^2 * (n - 1))
    hazard[own$time >= t] <- hazard[own$time >= t] + e / n
  }
  faster <- if (variance > 0) excess / variance else 0
  later <- function(x) 1 / (1 + exp(x))
  if (sum(mine) < 2 || sum(!mine) < 2 || variance <= 0) return(nothing(later(faster)))
  own$block <- if (all(!is.na(d$block))) own$block else NA
  blocks <- in_blocks(own, a, b, event - hazard); counts <- arrangements_of(blocks)
  mirrored <- all(sapply(blocks, function(x) length(x$a) == length(x$b)))
  if ((if (mirrored) 2 else 1) / counts * family > f$alpha) return(nothing(later(faster)))
  raw <- if (counts <= MOST_SWAPPED) swap_test(blocks)$p else pchisq(excess^2 / variance, 1, lower.tail = FALSE)
  p <- min(1, raw * family); half <- qnorm(1 - f$alpha / family / 2) / sqrt(variance)
  low <- later(faster + half); high <- later(faster - half)
  if (p > f$alpha || faster == 0) { low <- min(low, 0.5); high <- max(high, 0.5) }
  else if (faster < 0) low <- max(low, 0.5 + JUST_CLEAR) else high <- min(high, 0.5 - JUST_CLEAR)
  c(difference = later(faster), low = low, high = high, p = p)
})

# ---- counts as rates --------------------------------------------------------------------

counts <- function(d, f, arms) {
  totals <- tapply(d$count, d$arm, sum)
  if (sum(d$count) / nrow(d) < 3 || any(totals == 0)) return(permutation(d, f, arms))
  t <- factor(d$arm, levels = c(f$control, setdiff(arms, f$control)))
  b <- factor(if (all(!is.na(d$block))) d$block else "")
  fit <- suppressWarnings(glm(reformulate(c(if (nlevels(b) > 1) "b", "t", "offset(base::log(d$exposure))"), "d$count"),
    family = quasipoisson, epsilon = 1e-14, maxit = 100))
  own <- paste0("t", levels(t)[-1])
  if (any(is.na(coef(fit)[own]))) return(permutation(d, f, arms))
  df <- df.residual(fit); phi <- if (df > 0) sum(residuals(fit, "pearson")^2) / df else NA
  v <- summary(fit)$cov.unscaled
  against_control(arms, f, function(a, b, family) {
    ratio <- coef(fit)[[paste0("t", a)]]
    if (is.na(phi) || phi <= 1e-12) return(nothing(exp(ratio)))
    se <- sqrt(phi * v[paste0("t", a), paste0("t", a)]); half <- qt(1 - f$alpha / family / 2, df) * se
    c(difference = exp(ratio), low = exp(ratio - half), high = exp(ratio + half), p = min(1, family * 2 * pt(-abs(ratio) / se, df)))
  })
}
`;

/** Which parts of the library a method needs, by how they begin. */
const partsOf: Record<string, string[]> = {
  linear: ['means by the linear'],
  log: ['means by the linear'],
  welch: ['means, each'],
  permutation: ['means by swapping'],
  proportions: ['means by swapping', 'k of n'],
  scores: ['k of n', 'scores'],
  times: ['means by swapping', 'days'],
  counts: ['means by swapping', 'counts'],
};

/** The part of the library that one method needs. */
export function rLibraryFor(method: string): string {
  const parts = rLibrary.split(/\n(?=# ---- )/);
  const wanted = ['shared', ...(partsOf[method] ?? [])];
  return parts.filter((p) => wanted.some((w) => p.trimStart().startsWith(`# ---- ${w}`))).join('\n');
}
