# Makes the tables that the tests of this folder compare with, by an independent package (R with survival).
# Rscript tests/conformance/tables.R > tests/conformance/tables.h
suppressMessages(library(survival))
g <- function(x) ifelse(is.na(x), "NAN", sub("^-?Inf$", "NAN", formatC(x, digits = 17, format = "g")))
row <- function(...) cat("    {", paste(g(c(...)), collapse = ", "), "},\n", sep = "")

cat("// Made by tables.R; not to be edited.\n#pragma once\n\n#include <cmath>\n#include <vector>\n\n")
cat("namespace anvil::conformance {\n\n")

cat("struct ToleranceRow {\n    int n;\n    double k9095, k9595, k9995;\n};\n")
cat("/// One-sided normal tolerance factors by the non-central t.\ninline const std::vector<ToleranceRow> tolerance{\n")
exact <- function(p, n) {
  # qt with a non-centrality is only good to about 1e-8: refined by the integral itself.
  f <- function(k) integrate(function(w) pnorm(sqrt(n) * (k * sqrt(w / (n - 1)) - qnorm(p))) * dchisq(w, n - 1),
                             0, Inf, rel.tol = 1e-12, subdivisions = 2000)$value - 0.95
  k0 <- suppressWarnings(qt(0.95, n - 1, qnorm(p) * sqrt(n)) / sqrt(n))
  uniroot(f, c(k0 * 0.99, k0 * 1.01), tol = 1e-14)$root
}
for (n in 2:50) row(n, exact(0.90, n), exact(0.95, n), exact(0.99, n))
cat("};\n\n")

cat("/// A value with its bounds as they are known: low = high is exact, high NAN: at least, low NAN: at most.\n")
cat("struct Known {\n    double low, high;\n};\n")
cat("struct FitRow {\n    const char* name;\n    std::vector<Known> values;\n    double normal[3], lognormal[3], weibull[3]; ///< location, scale, ln L\n};\n")
sets <- list(
  bearings = cbind(c(17.88, 28.92, 33, 41.52, 42.12, 45.6, 48.4, 51.84, 51.96, 54.12, 55.56, 67.8, 68.64, 68.64,
                     68.88, 84.12, 93.12, 98.64, 105.12, 105.84, 127.92, 128.04, 173.4), NA),
  remission = { t <- c(6, 6, 6, 6, 7, 9, 10, 10, 11, 13, 16, 17, 19, 20, 22, 23, 25, 32, 32, 34, 35)
                c <- c(1, 1, 1, 0, 1, 0, 1, 0, 0, 1, 1, 0, 0, 0, 1, 1, 0, 0, 0, 0, 0); cbind(t, ifelse(c == 1, NA, Inf)) },
  placebo = cbind(c(1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23), NA),
  ovarian = with(ovarian, cbind(futime, ifelse(fustat == 1, NA, Inf))),
  classes = { t <- c(17.88, 28.92, 33, 41.52, 42.12, 45.6, 48.4, 51.84, 51.96, 54.12, 55.56, 67.8, 68.64, 68.64, 68.88,
                     84.12, 93.12, 98.64, 105.12, 105.84, 127.92, 128.04, 173.4)
              k <- floor(t / 20); cbind(ifelse(t < 40, NA, ifelse(t > 120, 120, 20 * k)),
                                        ifelse(t < 40, 40, ifelse(t > 120, Inf, 20 * (k + 1)))) }
)
cat("/// Published data: lives of ball bearings (Lieblein and Zelen 1956), times of remission (Freireich et al. 1963),\n")
cat("/// survival (Edmunson et al. 1979), the bearings again in classes.\n")
cat("inline const std::vector<FitRow> fits{\n")
for (name in names(sets)) {
  s <- sets[[name]]; low <- s[, 1]; high <- s[, 2]
  exactly <- is.na(high) & !is.na(low)
  high[exactly] <- low[exactly]
  l <- low; h <- high; h[is.infinite(h)] <- NA
  y <- Surv(l, h, type = "interval2")
  out <- lapply(c("gaussian", "lognormal", "weibull"), function(d) {
    f <- survreg(y ~ 1, dist = d, control = survreg.control(rel.tolerance = 1e-14, iter.max = 500))
    # survreg counts the likelihood of an exact value on the scale of the values
    c(coef(f)[[1]], f$scale, f$loglik[2]) })
  cat("    {\"", name, "\", {", paste0("{", g(l), ", ", g(ifelse(is.na(h), NaN, h)), "}", collapse = ", "), "},\n     ", sep = "")
  cat(paste0("{", sapply(out, function(o) paste(g(o), collapse = ", ")), "}", collapse = ", "), "},\n", sep = "")
}
cat("};\n\n")

cat("struct PairRow {\n    std::vector<double> a, b;\n    double t, df, p, mannWhitney, tost, low, high, pooledP;\n};\n")
cat("/// Welch, Mann and Whitney, two one-sided tests on the ratio with a margin of 10 %, its interval, Student on logarithms.\n")
cat("inline const std::vector<PairRow> pairs{\n")
set.seed(7)
cases <- list(
  list(c(27.5, 21.0, 19.0, 23.6, 17.0, 17.9, 16.9, 20.1, 21.9, 22.6, 23.1, 19.6, 19.0, 21.7, 21.4),
       c(27.1, 22.0, 20.8, 23.4, 23.4, 23.5, 25.8, 22.0, 24.8, 20.2, 21.9, 22.1, 22.9, 30.5, 31.3)), # ties: normal law
  list(c(0.80, 0.83, 1.89, 1.04, 1.45, 1.38, 1.91, 1.64, 0.73, 1.46), c(1.15, 0.88, 0.90, 0.74, 1.21)),
  list(c(412, 431, 398), c(405, 419, 409)), list(c(100.1, 100.4, 99.2, 100.9, 99.6), c(101, 100.2, 99.9, 100.6, 99.4)),
  list(round(rnorm(6, 50, 5), 2), round(rnorm(9, 55, 2), 2)), list(round(rlnorm(12, 2, .3), 3), round(rlnorm(7, 2.2, .1), 3)),
  list(c(3.1, 2.9), c(4.4, 4.1)))
for (k in cases) {
  a <- k[[1]]; b <- k[[2]]
  w <- t.test(a, b)
  A <- var(a) / length(a); B <- var(b) / length(b)
  at <- function(rho) { # Fieller's T with Welch's degrees of freedom at the ratio
    v <- A + rho^2 * B
    list(t = (mean(a) - rho * mean(b)) / sqrt(v), df = v^2 / (A^2 / (length(a) - 1) + rho^4 * B^2 / (length(b) - 1))) }
  low <- at(1 / 1.1); high <- at(1.1)
  tost <- max(pt(low$t, low$df, lower.tail = FALSE), pt(high$t, high$df))
  p <- function(rho) { x <- at(rho); 2 * pt(-abs(x$t), x$df) - 0.05 }
  r <- mean(a) / mean(b)
  ends <- c(uniroot(p, c(r / 3, r), tol = 1e-15)$root, uniroot(p, c(r, 3 * r), tol = 1e-15)$root)
  tied <- any(duplicated(c(a, b))) || length(a) + length(b) > 20
  m <- suppressWarnings(wilcox.test(a, b, exact = !tied, correct = TRUE)$p.value)
  cat("    {{", paste(g(a), collapse = ", "), "}, {", paste(g(b), collapse = ", "), "}, ",
      paste(g(c(w$statistic, w$parameter, w$p.value, min(1, m), tost, ends, t.test(log(a), log(b), var.equal = TRUE)$p.value)), collapse = ", "), "},\n", sep = "")
}
cat("};\n\n")

cat("struct HolmRow {\n    std::vector<double> p, holm;\n};\ninline const std::vector<HolmRow> holm{\n")
for (p in list(c(.01, .04, .03, .005), c(.5, .5, .5), c(.0001, .9, .02, .02, .3), c(1), c(.049, .051)))
  cat("    {{", paste(g(p), collapse = ", "), "}, {", paste(g(p.adjust(p, "holm")), collapse = ", "), "}},\n", sep = "")
cat("};\n\n")

cat("struct SizeRow {\n    double cv, difference, power;\n    int n;\n};\ninline const std::vector<SizeRow> sizes{\n")
for (cv in c(.03, .08, .12, .2)) for (d in c(.05, .1, .15, .3)) for (w in c(.8, .9)) {
  power <- function(n) { nc <- d / cv * sqrt(n / 2); q <- qt(.975, 2 * n - 2); pt(q, 2 * n - 2, nc, lower = FALSE) + pt(-q, 2 * n - 2, nc) }
  n <- 2; while (suppressWarnings(power(n)) < w) n <- n + 1
  row(cv, d, w, n)
}
cat("};\n\n} // namespace anvil::conformance\n")
