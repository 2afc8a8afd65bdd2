#include <anvil/stats/trend.h>

#include "distributions.h"
#include <algorithm>
#include <cmath>
#include <vector>

namespace anvil::stats {

std::optional<Trend> linearTrend(std::span<const double> x, std::span<const double> y) {
    const std::size_t n = std::min(x.size(), y.size());
    if (n < 3) return std::nullopt;
    const auto count = static_cast<double>(n);
    double meanX = 0, meanY = 0;
    for (std::size_t i = 0; i < n; ++i) {
        meanX += x[i] / count;
        meanY += y[i] / count;
    }
    double xx = 0, xy = 0, yy = 0;
    for (std::size_t i = 0; i < n; ++i) {
        xx += (x[i] - meanX) * (x[i] - meanX);
        xy += (x[i] - meanX) * (y[i] - meanY);
        yy += (y[i] - meanY) * (y[i] - meanY);
    }
    if (!(xx > 0)) return std::nullopt;
    Trend t;
    t.slope = xy / xx;
    t.intercept = meanY - t.slope * meanX;
    const double rest = std::max(0.0, yy - t.slope * xy);
    if (!std::isfinite(t.slope) || !std::isfinite(t.intercept)) return std::nullopt;
    t.slopeError = std::sqrt(rest / (count - 2) / xx);
    if (rest > 1e-24 * std::max(yy, 1e-300)) {
        const quietly::StudentsT dist(count - 2);
        t.p = 2 * boost::math::cdf(boost::math::complement(dist, std::abs(t.slope / t.slopeError)));
    }
    return t;
}

std::optional<double> medianSlope(std::span<const double> x, std::span<const double> y) {
    std::vector<double> slopes;
    for (std::size_t i = 0; i < std::min(x.size(), y.size()); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (x[i] != x[j]) slopes.push_back((y[i] - y[j]) / (x[i] - x[j]));
    if (slopes.empty()) return std::nullopt;
    std::sort(slopes.begin(), slopes.end());
    const auto n = slopes.size();
    return finite(n % 2 ? slopes[n / 2] : 0.5 * slopes[n / 2 - 1] + 0.5 * slopes[n / 2]);
}

} // namespace anvil::stats
