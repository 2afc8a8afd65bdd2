# The same as three benchmarks of verdict_bench.cpp, in another package (R with survival); medians in ms.
suppressMessages(library(survival))
best <- function(f, n = 7) median(sapply(1:n, function(i) system.time(f())[["elapsed"]])) * 1000
set.seed(5)
groups <- lapply(1:50, function(i) 1000 * (-log(runif(10)))^0.1)
cat("weibullFits", best(function() for (g in groups) survreg(Surv(g, c(0, rep(1, 9))) ~ 1, dist = "weibull")), "\n")
values <- lapply(1:50, function(o) 1000 * (1 + 0.01 * o) * (1 + 0.08 * rnorm(10)))
cat("welchAndHolm", best(function() {
  p <- c()
  for (i in 1:49) for (j in (i + 1):50) p <- c(p, t.test(values[[i]], values[[j]])$p.value)
  p.adjust(p, "holm")
}), "\n")
cat("ranking", best(function() { # 20 000 draws of 50 means, each with its own spread
  m <- sapply(values, mean); s <- sapply(values, sd)
  d <- sapply(1:50, function(k) m[k] + s[k] / sqrt(10) * rt(20000, 9))
  tabulate(max.col(d), 50) / 20000
}), "\n")
