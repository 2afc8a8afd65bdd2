#include <anvil/stats/ratio_test.h>

#include "distributions.h"
#include <algorithm>
#include <anvil/stats/summary.h>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <limits>

namespace anvil::stats {

namespace {

/// Where a function that changes its sign between two places crosses zero.
template <class F> double solve(const F& f, double x, double y) {
    std::uintmax_t steps = 80;
    const double low = std::min(x, y), high = std::max(x, y);
    const auto [a, b] = boost::math::tools::toms748_solve(
        f, low, high, [](double u, double v) { return std::abs(u - v) <= 1e-11; }, steps);
    return 0.5 * (a + b);
}

} // namespace

RatioTest RatioTest::welch(double a, double b, double ea, double eb, double na, double nb) {
    RatioTest out;
    // In shares of the greater average, so that no square leaves what a double holds.
    const double scale = std::max(std::abs(a), std::abs(b));
    out.m_kind = Kind::welch;
    out.m_a = a / scale;
    out.m_b = b / scale;
    out.m_va = ea / scale * (ea / scale);
    out.m_vb = eb / scale * (eb / scale);
    out.m_na = na;
    out.m_nb = nb;
    return out;
}

RatioTest RatioTest::paired(double a, double b, double ea, double eb, double cov, double n) {
    auto out = welch(a, b, ea, eb, n, n);
    const double scale = std::max(std::abs(a), std::abs(b));
    out.m_kind = Kind::paired;
    out.m_cov = cov / scale / scale;
    return out;
}

RatioTest RatioTest::onLogs(double log, double se, double df) {
    RatioTest out;
    out.m_a = log;
    out.m_va = se;
    out.m_na = df;
    return out;
}

double RatioTest::ratio() const { return m_kind == Kind::logs ? std::exp(m_a) : m_a / m_b; }

double RatioTest::t(double rho) const {
    if (m_kind == Kind::logs) return (m_a - std::log(rho)) / m_va;
    if (std::isinf(rho)) return -m_b / std::sqrt(m_vb);
    const double variance = m_va + rho * rho * m_vb - 2 * rho * m_cov;
    return (m_a - rho * m_b) / std::sqrt(std::max(variance, 0.0));
}

double RatioTest::df(double rho) const {
    if (m_kind == Kind::logs) return m_na;
    if (m_kind == Kind::paired) return m_na - 1;
    if (std::isinf(rho)) return m_nb - 1;
    // By the share of one side (Welch 1947).
    const double x = m_va, y = rho * rho * m_vb, share = x / (x + y), rest = y / (x + y);
    return 1 / (share * share / (m_na - 1) + rest * rest / (m_nb - 1));
}

double RatioTest::p(double rho) const {
    return std::min(1.0, 2 * studentUpperTail(df(rho), std::abs(t(rho))));
}

double RatioTest::sameP(double margin) const {
    const double low = 1 / (1 + margin), high = 1 + margin;
    return std::max(studentUpperTail(df(low), t(low)), studentUpperTail(df(high), -t(high)));
}

double RatioTest::edge(double level, bool upper) const {
    const double open = upper ? std::numeric_limits<double>::infinity() : 0.0;
    if (m_kind == Kind::logs) {
        const double half = studentQuantile(m_na, 1 - level / 2) * m_va;
        return std::exp(m_a + (upper ? half : -half));
    }
    const double middle = std::log(ratio()), sign = upper ? 1 : -1;
    const auto f = [&](double x) { return p(std::exp(x)) - level; };
    // From a standard error off the ratio outwards, until it is rejected.
    const double se =
        std::sqrt(std::max(1e-30, m_va / (m_a * m_a) + m_vb / (m_b * m_b) - 2 * m_cov / (m_a * m_b)));
    constexpr double farthest = 690; // e^690 is near the end of what a double holds
    // The crossing next outwards of a place that is not rejected; infinite: there is none.
    const auto crossing = [&](double inner) {
        double outer = inner + sign * se;
        for (double step = se; f(outer) > 0; step *= 1.5) {
            inner = outer;
            outer += sign * step;
            if (std::abs(outer) > farthest) return sign * std::numeric_limits<double>::infinity();
        }
        return solve(f, inner, outer);
    };
    double found = crossing(middle);
    // With Welch's degrees of freedom the ratios that are not rejected may lie in two pieces. The word speaks
    // of the ratio 1: it lies within where it is not rejected, and without where it is.
    const double one = 0, at = f(one);
    if (sign * (one - middle) > 0) {
        if (sign * (one - found) > 0 && at > 0) found = crossing(one);
        if (sign * (one - found) <= 0 && at < 0) found = solve(f, middle, one);
    }
    return std::isinf(found) ? open : std::exp(found);
}

std::pair<double, double> RatioTest::interval(double level) const {
    return {edge(level, false), edge(level, true)};
}

} // namespace anvil::stats
