// One test of a ratio of averages, from which its word, its interval and its sameness follow alike.
#pragma once

#include <utility>

namespace anvil::stats {

/// The test that the averages of two groups stand to each other as ρ. What is called different at a level is
/// what its interval at that level leaves out, for both are this one test: Fieller's (1954) with Welch's
/// (1947) degrees of freedom at ρ; on whole blocks with those of the differences; on logarithms with those of
/// a shared spread.
class RatioTest {
public:
    RatioTest() = default;
    /// Own spreads: T(ρ) = (a − ρ·b)/√(ea² + ρ²·eb²), ea and eb standard errors, na and nb values.
    static RatioTest welch(double a, double b, double ea, double eb, double na, double nb);
    /// Differences x − ρ·y within n blocks; `cov` is the covariance of both averages.
    static RatioTest paired(double a, double b, double ea, double eb, double cov, double n);
    /// Logarithms: T(ρ) = (log − ln ρ)/se with `df` degrees of freedom.
    static RatioTest onLogs(double log, double se, double df);

    /// The ratio of the averages it was made of.
    double ratio() const;
    double t(double rho) const;
    double df(double rho) const;
    /// Two-sided p of the ratio being ρ > 0.
    double p(double rho) const;
    /// The larger p of the two one-sided tests (Schuirmann 1987) against 1/(1 + margin) and 1 + margin.
    double sameP(double margin) const;
    /// The ratios that are not rejected at this level: 0.05 for a 95 % interval. Open ends are 0 and
    /// infinity. Both averages must be positive. Relative error below 1e-9.
    std::pair<double, double> interval(double level) const;

private:
    enum class Kind { welch, paired, logs };
    double edge(double level, bool upper) const;
    Kind m_kind = Kind::logs;
    double m_a = 0, m_b = 0, m_va = 0, m_vb = 0, m_cov = 0, m_na = 0, m_nb = 0;
};

} // namespace anvil::stats
