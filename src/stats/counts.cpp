#include "distributions.h"

#include <algorithm>
#include <anvil/stats/counts.h>
#include <boost/math/distributions/beta.hpp>
#include <cmath>
#include <limits>

namespace anvil::stats {
namespace {

double betaQuantile(double a, double b, double p) {
    return quantile(boost::math::beta_distribution<double, quietly::Policy>(a, b), p);
}

/// ln of n over k.
double lnChoose(int n, int k) {
    return std::lgamma(n + 1.0) - std::lgamma(k + 1.0) - std::lgamma(n - k + 1.0);
}

} // namespace

std::pair<double, double> exactInterval(Tally t, double confidence) {
    if (t.tries < 1) return {0, 1};
    const double tail = (1 - confidence) / 2, k = t.successes, n = t.tries;
    return {k > 0 ? betaQuantile(k, n - k + 1, tail) : 0.0,
            k < n ? betaQuantile(k + 1, n - k, 1 - tail) : 1.0};
}

double asManySuccesses(Tally t, double rate) {
    if (t.successes <= 0) return 1;
    // P(X ≥ k) of a binomial is the regularised incomplete beta function at the rate.
    return cdf(
        boost::math::beta_distribution<double, quietly::Policy>(t.successes, t.tries - t.successes + 1.0),
        rate);
}

double asFewSuccesses(Tally t, double rate) {
    return t.successes >= t.tries ? 1 : 1 - asManySuccesses({t.successes + 1, t.tries}, rate);
}

double fisherExact(Tally a, Tally b) {
    if (a.tries < 1 || b.tries < 1) return 1;
    const int all = a.tries + b.tries, hits = a.successes + b.successes;
    const auto ln = [&](int k) {
        return lnChoose(a.tries, k) + lnChoose(b.tries, hits - k) - lnChoose(all, hits);
    };
    const double seen = ln(a.successes);
    double p = 0;
    for (int k = std::max(0, hits - b.tries); k <= std::min(a.tries, hits); ++k)
        if (const double here = ln(k); here <= seen + 1e-7) p += std::exp(here); // ties are ties in rounding
    return std::min(1.0, p);
}

std::pair<double, double> ratioInterval(Tally a, Tally b, double confidence) {
    const double each = std::sqrt(confidence);
    const auto [al, ah] = exactInterval(a, each);
    const auto [bl, bh] = exactInterval(b, each);
    const double infinite = std::numeric_limits<double>::infinity();
    return {bh > 0 ? al / bh : 0.0, bl > 0 ? ah / bl : infinite};
}

} // namespace anvil::stats
