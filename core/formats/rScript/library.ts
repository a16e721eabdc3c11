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
  if (is.infinite(df)) return(known)
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

# One correlation for all pairs: their mean, its root in steps of a fiftieth.
in_steps <- function(rho) {
  off <- rho[upper.tri(rho)]; average <- if (length(off) > 0) mean(off) else 0
  root <- min(0.98, floor(sqrt(max(0, average)) * 50 + 0.5) / 50)
  out <- matrix(root^2, nrow(rho), ncol(rho)); diag(out) <- 1
  out
}

# The control's spread is its own, another's half its own and half what the others share. NULL: one spread for all.
# w: differences from the control as weights of the values; x: the model; of: arms by number, the control (if any) is 1.
own_spreads <- function(x, of, y, w, has_control, blocked) {
  n <- length(y); if (blocked && n > 120) return(NULL)
  q <- qr(x); q <- qr.Q(q)[, seq_len(q$rank), drop = FALSE]; m <- diag(n) - q %*% t(q)
  e <- as.vector(m %*% y); k <- max(of); all <- seq_len(k); base <- if (has_control) 1 else 0
  squares <- sapply(all, function(g) sum(e[of == g]^2)); trace <- sapply(all, function(g) sum(diag(m)[of == g]))
  pooled <- function(g) { whole <- sum(trace[g]); if (whole > 1e-9) (all %in% g) / whole else rep(0, k) }
  lines <- t(sapply(all, function(g) {
    own <- pooled(g); others <- pooled(setdiff(all, c(g, base))); known <- any(others > 0)
    if (sum(of == g) < 3) return(pooled(all))
    if (g == base || !known) own else (own + others) / 2
  }))
  variance <- as.vector(lines %*% squares)
  if (any(!(variance > 1e-12 * sum(squares)))) return(NULL)
  error <- variance[of]; s <- m %*% (error * m)
  shared <- sapply(all, function(h) sapply(all, function(g) sum(s[of == g, of == h]^2)))
  df <- apply(w, 1, function(one) {
    parts <- sapply(all, function(g) sum(one[of == g]^2)); weights <- as.vector(t(lines) %*% parts)
    df <- sum(parts * variance)^2 / as.vector(t(weights) %*% shared %*% weights)
    step <- if (df >= 10) 1 else if (df >= 3) 0.5 else 0.1
    max(1, floor(df / step + 1e-6) * step)
  })
  list(cov = w %*% (error * t(w)), df = df)
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
  x <- model.matrix(fit); w <- qr.coef(qr(x), diag(length(y)))[own, , drop = FALSE]
  blocked <- nlevels(b) > 1 || nlevels(k) > 1
  spreads <- if (tested && is.null(f$pooled)) own_spreads(x, as.integer(t), y, w, !f$peers, blocked)
  v <- if (is.null(spreads)) rss / df * summary.lm(fit)$cov.unscaled[own, own, drop = FALSE] else spreads$cov
  dfs <- if (is.null(spreads)) rep(df, length(own)) else spreads$df
  rho <- v / sqrt(outer(diag(v), diag(v)))
  if (!is.null(spreads)) rho <- in_steps(rho)
  tests <- sapply(seq_along(own), function(i) {
    if (!tested) return(c(NA, NA, NA))
    se <- sqrt(v[i, i]); t <- abs(difference[i]) / se
    if (f$peers) {
      g <- length(arms)
      half <- uniroot(function(q) ptukey(q, g, dfs[i]) - (1 - f$alpha), c(0.1, 20), extendInt = "upX", tol = 1e-10)$root / sqrt(2) * se
      p <- ptukey(t * sqrt(2), g, dfs[i], lower.tail = FALSE)
    } else {
      family <- dunnett(rho, dfs[i], f$alpha)
      half <- family$critical * se; p <- family$p(t)
    }
    c(difference[i] - half, difference[i] + half, p)
  })
  data.frame(arm = as.integer(levels(t)[-1]), difference = unname(difference), low = tests[1, ], high = tests[2, ], p = tests[3, ])
}

log <- function(d, f, arms) {
  if (any(d$value <= 0)) return(NULL)
  d$value <- base::log(d$value); f$least <- 0; f$pooled <- TRUE
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

# ---- closed testing ----------------------------------------------------------------

subsets <- function(x, least) {
  all <- lapply(seq_len(2^length(x)) - 1, function(b) x[bitwAnd(b, 2^(seq_along(x) - 1)) > 0])
  all[lengths(all) >= least]
}

# p of every arm against the control: the largest of all sets that hold both. Sets of equals but for the largest get
# their share of the level (Ryan, Einot, Gabriel and Welsch).
closed <- function(arms, f, test) {
  known <- list()
  of <- function(set) {
    key <- paste(sort(set), collapse = " ")
    if (is.null(known[[key]])) known[[key]] <<- test(sort(set))
    known[[key]]
  }
  none <- function(p) if (is.na(p)) 0 else p
  others <- setdiff(arms, f$control); m <- length(arms)
  function(a) {
    alone <- of(c(a, f$control))
    if (is.na(alone)) return(NA)
    if (f$peers) {
      if (m >= 11) return(min(1, alone * choose(m, 2)))
      sets <- Filter(function(s) all(c(a, f$control) %in% s), subsets(arms, 2))
      return(max(sapply(sets, function(s) { p <- none(of(s)); if (length(s) > m - 2) p else 1 - (1 - p)^(m / length(s)) })))
    }
    if (m - 1 >= 11) return(min(1, alone * (m - 1)))
    max(sapply(Filter(function(s) a %in% s, subsets(others, 1)), function(s) none(of(c(f$control, s)))))
  }
}

least_swapped <- function(d, a, b) {
  sizes <- table(factor(blocks_of(d)), factor(d$arm, levels = sort(unique(d$arm))))
  a <- sizes[, as.character(a)]; b <- sizes[, as.character(b)]
  min(1, (if (all(a == b)) 2 else 1) / prod(choose(a + b, a)))
}

# Whether swapping could tell two, p as closed testing shares it.
can_tell <- function(d, a, b, arms, f, alpha = f$alpha) {
  equals <- if (f$peers) length(arms) else length(arms) - 1
  least <- least_swapped(d, a, b)
  alone <- (!f$peers && (a == f$control || b == f$control)) || equals < 4
  (if (alone) least else 1 - (1 - least)^(equals / 2)) <= alpha
}
all_told <- function(d, arms, f, alpha = f$alpha) {
  several <- arms[sapply(arms, function(a) sum(d$arm == a) > 1)]
  pairs <- if (length(several) > 1) combn(several, 2) else matrix(0, 2, 0)
  all(apply(pairs, 2, function(p) can_tell(d, p[1], p[2], arms, f, alpha)))
}

# Scores handed out among these arms inside blocks: of two in every way, of more the largest difference.
swapped_apart <- function(score, arm, block, base) {
  groups <- sort(unique(arm))
  if (length(groups) == 2) {
    blocks <- lapply(unique(block), function(k) list(a = score[arm == groups[1] & block == k], b = score[arm == groups[2] & block == k]))
    if (arrangements_of(blocks) <= MOST_SWAPPED) return(swap_test(blocks)$p)
  }
  k <- length(groups); size <- sapply(groups, function(g) sum(arm == g)); means <- rep(0, k); v <- matrix(0, k, k)
  for (one in unique(block)) {
    here <- block == one; n <- sum(here); if (n < 2) next
    e <- score[here] - mean(score[here]); own <- sapply(groups, function(g) sum(arm[here] == g))
    means <- means + sapply(groups, function(g) sum(e[arm[here] == g])) / size
    v <- v + sum(e^2) / (n * (n - 1)) * (diag(own * n, k) - outer(own, own)) / outer(size, size)
  }
  pairs <- if (is.null(base)) t(combn(k, 2)) else cbind(setdiff(seq_len(k), match(base, groups)), match(base, groups))
  l <- matrix(0, nrow(pairs), k)
  l[cbind(seq_len(nrow(pairs)), pairs[, 1])] <- 1; l[cbind(seq_len(nrow(pairs)), pairs[, 2])] <- -1
  cov <- l %*% v %*% t(l)
  if (any(!(diag(cov) > 1e-12))) return(NA)
  z <- max(abs(l %*% means) / sqrt(diag(cov)))
  if (is.null(base)) return(max(0, ptukey(z * sqrt(2), k, Inf, lower.tail = FALSE)))
  if (nrow(pairs) == 1) return(2 * pnorm(-z))
  rho <- cov / sqrt(outer(diag(cov), diag(cov))); lambda <- product_form(rho)
  min(1, max(0, 1 - (if (is.null(lambda)) lattice_probability(rho) else product_probability(lambda))(z)))
}

# Limits that say what p says: where they part, the limit towards no effect is the test's own.
agreeing <- function(estimate, low, high, p, alpha, none) {
  refuted <- p <= alpha && estimate != none
  if (refuted != (low > none || high < none)) {
    part <- if (p >= 1) -1 else max(-1, 1 - qnorm(alpha / 2) / qnorm(p / 2))
    near <- none + (estimate - none) * part
    if (estimate > none) low <- near else high <- near
  }
  c(difference = estimate, low = low, high = high, p = p)
}

# ---- k of n -----------------------------------------------------------------------

wilson <- function(k, n, alpha) {
  z <- qnorm(1 - alpha / 2); p <- k / n
  middle <- (p + z^2 / (2 * n)) / (1 + z^2 / n)
  half <- z / (1 + z^2 / n) * sqrt(p * (1 - p) / n + z^2 / (4 * n^2))
  c(p, if (k == 0) 0 else max(0, middle - half), if (k == n) 1 else min(1, middle + half))
}

# Pearson residuals of the units, blocks and columns taken off; groups near none or all show nothing of it.
scatter_of <- function(d) {
  share <- function(a) c(k = sum(d$k[d$arm == a]), n = sum(d$n[d$arm == a]))
  arms <- unique(d$arm)
  telling <- arms[sapply(arms, function(a) { s <- share(a); min(s["k"], s["n"] - s["k"]) >= sum(d$arm == a) })]
  counted <- if (length(telling) > 0) telling else arms
  use <- d$n > 0 & d$arm %in% counted
  block <- blocks_of(d); column <- if (all(!is.na(d$column))) d$column else rep("", nrow(d))
  spent <- length(unique(block)) + length(unique(column)) - 2
  free <- sum(use) - length(counted)
  inside <- free - spent >= 6
  df <- free - (if (inside) spent else 0)
  if (length(telling) == 0) return(list(spread = 1, df = df))
  p <- sapply(d$arm, function(a) { s <- share(a); s[["k"]] / s[["n"]] })
  r <- ((d$k - d$n * p) / sqrt(d$n * p * (1 - p)))[use]
  if (inside) for (by in list(block[use], column[use])) if (length(unique(by)) > 1) r <- r - ave(r, by)
  list(spread = if (df > 0) max(1, sum(r^2) / df) else 1, df = df)
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

# Too few units to be swapped: Cochran-Mantel-Haenszel of several groups over the scatter of all units, against F.
by_scatter <- function(d, set, scatter) {
  g <- length(set) - 1; excess <- rep(0, g); v <- matrix(0, g, g); block <- blocks_of(d)
  for (one in unique(block)) {
    n <- sapply(set, function(a) sum(d$n[block == one & d$arm == a])); N <- sum(n)
    k <- sapply(set, function(a) sum(d$k[block == one & d$arm == a])); K <- sum(k)
    if (N < 2) next
    excess <- excess + (k - n * K / N)[seq_len(g)]
    v <- v + K * (N - K) / (N^2 * (N - 1)) * (diag(n * N, g + 1) - outer(n, n))[seq_len(g), seq_len(g)]
  }
  chi <- tryCatch(sum(excess * solve(v, excess)), error = function(e) NA)
  if (is.na(chi) || chi <= 0) 1 else pf(chi / g / scatter$spread, g, scatter$df, lower.tail = FALSE)
}

proportions <- function(d, f, arms) {
  scatter <- scatter_of(d); single <- function(a) sum(d$arm == a) < 2
  swapped <- any(is.na(d$column)) && all_told(d, arms, f, f$alpha / 10)
  p_of <- closed(arms, f, function(set) {
    if (any(sapply(set, single))) return(NA)
    if (!swapped) return(if (scatter$df >= 2) by_scatter(d, set, scatter) else NA)
    if (length(set) == 2) return(swap_units(d, set[1], set[2]))
    these <- d[d$arm %in% set, ]
    swapped_apart(these$k - these$n * sum(these$k) / sum(these$n), these$arm, blocks_of(d)[d$arm %in% set],
      if (!f$peers && f$control %in% set) f$control)
  })
  against_control(arms, f, function(a, b, family) {
    share <- function(x) {
      own <- d[d$arm == x, ]
      wilson(sum(own$k) / scatter$spread, sum(own$n) / scatter$spread, f$alpha / family)
    }
    x <- share(a); y <- share(b); difference <- x[1] - y[1]; p <- p_of(a)
    if (is.na(p)) return(nothing(100 * difference))
    low <- difference - sqrt((x[1] - x[2])^2 + (y[3] - y[1])^2)
    high <- difference + sqrt((x[3] - x[1])^2 + (y[1] - y[2])^2)
    agreeing(100 * difference, 100 * low, 100 * high, p, f$alpha, 0)
  })
}

# ---- scores and ranks ----------------------------------------------------------------

superiority <- function(a, b, alpha) {
  share <- (mean(sign(outer(a, b, "-"))) + 1) / 2; z <- qnorm(1 - alpha / 2)
  m <- length(a); n <- length(b); others <- (m + n) / 2 - 1
  half <- function(s) z * sqrt(s * (1 - s) * (1 + others * ((1 - s) / (2 - s) + s / (1 + s))) / (m * n))
  root <- function(g, from, to) if (g(from) >= 0) from else if (g(to) <= 0) to else uniroot(g, c(from, to), tol = 1e-13)$root
  c(share, if (share == 0) 0 else root(function(s) s + half(s) - share, 0, share),
    if (share == 1) 1 else root(function(s) s - half(s) - share, share, 1))
}

scores <- function(d, f, arms) {
  # Too few units to be swapped, and Latin squares: steps as figures.
  # (An order of six lies whole on two sides in one of ten trials: ranks need four units of each for that.)
  units <- table(d$arm); several <- sum(units > 1) > 1; short <- f$ranked && any(units > 1 & units < 4)
  if (!short && (all(!is.na(d$column)) || (several && !all_told(d, arms, f)))) return(linear(d, f, arms))
  groups <- lapply(arms, function(a) d$value[d$arm == a])
  cells <- table(d$block, d$arm)
  complete <- all(!is.na(d$block)) && nrow(cells) > 1 && all(cells == 1)
  rows <- if (complete) t(sapply(unique(d$block), function(k) sapply(arms, function(a) d$value[d$arm == a & d$block == k])))
  p_of <- closed(arms, f, function(set) {
    these <- d[d$arm %in% set, ]
    if (any(table(these$arm) < 2) || (length(set) == 2 && !can_tell(d, set[1], set[2], arms, f))) return(NA)
    swapped_apart(rank(these$value), these$arm, blocks_of(d)[d$arm %in% set], if (!f$peers && f$control %in% set) f$control)
  })
  against_control(arms, f, function(a, b, family) {
    i <- match(a, arms); j <- match(b, arms); alpha <- f$alpha / family
    s <- if (complete) wilson(sum((sign(rows[, i] - rows[, j]) + 1) / 2), nrow(rows), alpha)
      else superiority(groups[[i]], groups[[j]], alpha)
    p <- p_of(a)
    if (is.na(p)) nothing(s[1]) else agreeing(s[1], s[2], s[3], p, f$alpha, 0.5)
  })
}

# ---- days until -----------------------------------------------------------------------

# Each unit's share in the log-rank test of these together: 1 for an event less the hazard gathered so far.
log_rank_scores <- function(time, event) {
  hazard <- rep(0, length(time))
  for (t in sort(unique(time[event]))) hazard[time >= t] <- hazard[time >= t] + sum(event & time == t) / sum(time >= t)
  event - hazard
}

times <- function(d, f, arms) {
  # Days that are all known are figures.
  if (all(!is.na(d$value))) return(linear(d, f, arms))
  p_of <- closed(arms, f, function(set) {
    if (length(set) == 2 && !can_tell(d, set[1], set[2], arms, f)) return(NA)
    these <- d[d$arm %in% set, ]
    swapped_apart(log_rank_scores(these$time, these$happened == 1), these$arm, blocks_of(d)[d$arm %in% set],
      if (!f$peers && f$control %in% set) f$control)
  })
  against_control(arms, f, function(a, b, family) {
    own <- d[d$arm %in% c(a, b), ]; mine <- own$arm == a; event <- own$happened == 1
    excess <- 0; variance <- 0
    for (t in sort(unique(own$time[event]))) {
      n <- sum(own$time >= t); m <- sum(own$time >= t & mine); e <- sum(event & own$time == t)
      excess <- excess + sum(event & own$time == t & mine) - e * m / n
      if (n > 1) variance <- variance + e * m * (n - m) * (n - e) / (n^2 * (n - 1))
    }
    faster <- if (variance > 0) excess / variance else 0
    later <- function(x) 1 / (1 + exp(x)); p <- p_of(a)
    if (is.na(p) || variance <= 0) return(nothing(later(faster)))
    half <- qnorm(1 - f$alpha / family / 2) / sqrt(variance)
    agreeing(later(faster), later(faster + half), later(faster - half), p, f$alpha, 0.5)
  })
}

# ---- counts as rates --------------------------------------------------------------------

# Few counts, or none of one arm: the score test of the ratio given the sums of each block, and its interval by turning
# it round.
rate_ratio <- function(d, a, b, dispersion) {
  block <- blocks_of(d)
  strata <- lapply(unique(block), function(k) {
    x <- d[block == k & d$arm == a, ]; y <- d[block == k & d$arm == b, ]
    c(sum(x$count), sum(x$exposure), sum(y$count), sum(y$exposure))
  })
  strata <- Filter(function(s) s[2] > 0 && s[4] > 0 && s[1] + s[3] > 0, strata)
  if (length(strata) == 0) return(NULL)
  s <- do.call(rbind, strata)
  score <- function(ratio) {
    share <- ratio * s[, 2] / (ratio * s[, 2] + s[, 4]); both <- s[, 1] + s[, 3]
    sum(s[, 1] - both * share) / sqrt(dispersion * sum(both * share * (1 - share)))
  }
  where <- function(target) {
    low <- -40; high <- 40
    for (i in 1:90) { middle <- (low + high) / 2; if (score(exp(middle)) > target) low <- middle else high <- middle }
    exp((low + high) / 2)
  }
  none <- all(s[, 1] == 0); all_of <- all(s[, 3] == 0)
  list(estimate = if (none) 0 else if (all_of) Inf else where(0), score = score, interval = function(critical)
    c(if (none) 0 else where(critical), if (all_of) Inf else where(-critical)))
}

counts <- function(d, f, arms) {
  totals <- tapply(d$count, d$arm, sum); block <- blocks_of(d)
  few <- sum(d$count) / nrow(d) < 3 || any(totals == 0)
  use <- d$arm %in% names(totals)[totals > 0] & ave(d$count * (totals[as.character(d$arm)] > 0), block, FUN = sum) > 0
  phi <- NA; df <- 0; ratio <- NULL
  if (any(use)) {
    own <- d[use, ]; t <- factor(own$arm, levels = intersect(c(f$control, setdiff(arms, f$control)), own$arm)); b <- factor(block[use])
    terms <- c(if (nlevels(b) > 1 && nlevels(t) > 1) "b", if (nlevels(t) > 1) "t", "offset(base::log(own$exposure))")
    fit <- suppressWarnings(glm(reformulate(terms, "own$count"), family = quasipoisson, epsilon = 1e-14, maxit = 100))
    df <- df.residual(fit)
    if (df > 0 && !any(is.na(coef(fit)))) phi <- sum(residuals(fit, "pearson")^2) / df
    v <- summary(fit)$cov.unscaled
  }
  tested <- !is.na(phi)
  if (few) phi <- max(1, phi, na.rm = TRUE)
  against_control(arms, f, function(a, b, family) {
    if (!few) {
      name <- paste0("t", a); ratio <- coef(fit)[[name]]
      if (!tested || phi <= 1e-12) return(nothing(exp(ratio)))
      se <- sqrt(phi * v[name, name]); half <- qt(1 - f$alpha / family / 2, df) * se
      return(c(difference = exp(ratio), low = exp(ratio - half), high = exp(ratio + half), p = min(1, family * 2 * pt(-abs(ratio) / se, df))))
    }
    found <- rate_ratio(d, a, b, phi)
    if (is.null(found) || !tested) return(nothing(if (is.null(found)) 1 else found$estimate))
    ends <- found$interval(qt(1 - f$alpha / family / 2, df))
    c(difference = found$estimate, low = ends[1], high = ends[2], p = min(1, family * 2 * pt(-abs(found$score(1)), df)))
  })
}
`;

/** Which parts of the library a method needs, by how they begin. */
const partsOf: Record<string, string[]> = {
  linear: ['means by the linear'],
  log: ['means by the linear'],
  welch: ['means, each'],
  permutation: ['means by swapping'],
  proportions: ['means by the linear', 'means by swapping', 'closed', 'k of n'],
  scores: ['means by the linear', 'means by swapping', 'closed', 'k of n', 'scores'],
  times: ['means by the linear', 'means by swapping', 'closed', 'days'],
  counts: ['counts'],
};

/** The part of the library that one method needs. */
export function rLibraryFor(method: string): string {
  const parts = rLibrary.split(/\n(?=# ---- )/);
  const wanted = ['shared', ...(partsOf[method] ?? [])];
  return parts.filter((p) => wanted.some((w) => p.trimStart().startsWith(`# ---- ${w}`))).join('\n');
}
