#include <anvil/stats/power.h>

#include "distributions.h"
#include <algorithm>
#include <anvil/stats/summary.h>
#include <cmath>

namespace anvil::stats {

double powerOf(int n, double cv, double difference, double alpha) {
    const double df = 2.0 * n - 2, shift = difference / cv * std::sqrt(n / 2.0);
    const double critical = studentQuantile(df, 1 - alpha / 2);
    if (shift > 37) // beyond the reach of the series; the power is 1 to every digit
        return 1;
    const quietly::NonCentralT t(df, shift);
    return boost::math::cdf(boost::math::complement(t, critical)) + boost::math::cdf(t, -critical);
}

std::optional<int> replicatesFor(double cv, double difference, double power, double alpha) {
    if (!(cv > 0) || !(difference > 0) || !(power > 0 && power < 1) || !(alpha > 0 && alpha < 1))
        return std::nullopt;
    // Power rises with n. The normal distribution's answer is a little short of it: from there upwards.
    constexpr int most = 200'000;
    const double z = boost::math::quantile(quietly::Normal(), 1 - alpha / 2) +
                     boost::math::quantile(quietly::Normal(), power);
    const double guess = 2 * (z * cv / difference) * (z * cv / difference);
    if (!(guess < most)) return std::nullopt;
    int high = std::max(2, static_cast<int>(guess)), low = high - 1, step = 2;
    while (low > 1 && powerOf(low, cv, difference, alpha) >= power) {
        high = low;
        low = std::max(1, low - step);
        step *= 2;
    }
    for (step = 2; powerOf(high, cv, difference, alpha) < power; step *= 2) {
        low = high;
        high += step;
        if (high > most) return std::nullopt;
    }
    while (high - low > 1) {
        const int mid = low + (high - low) / 2;
        (powerOf(mid, cv, difference, alpha) < power ? low : high) = mid;
    }
    return high;
}

std::optional<double> detectableDifference(int n, double cv, double power) {
    if (n < 2 || !(cv > 0) || !std::isfinite(cv) || !(power > 0 && power < 1)) return std::nullopt;
    double low = 0, high = cv;
    while (powerOf(n, cv, high) < power)
        high *= 2;
    if (!std::isfinite(high)) return std::nullopt;
    while (high - low > 1e-10 * high) {
        const double mid = 0.5 * (low + high);
        (powerOf(n, cv, mid) < power ? low : high) = mid;
    }
    return high;
}

double toleranceFactor(int n, double p, double confidence) {
    const double root = std::sqrt(static_cast<double>(n));
    const double shift = boost::math::quantile(quietly::Normal(), p) * root;
    return boost::math::quantile(quietly::NonCentralT(n - 1.0, shift), confidence) / root;
}

std::optional<int> replicatesForFloor(double cv, double share, double p, double confidence) {
    if (!(cv > 0) || !(share > 0)) return std::nullopt;
    constexpr int most = 10000;
    const auto enough = [&](int n) { return toleranceFactor(n, p, confidence) * cv <= share; };
    int low = 1, high = 2; // k falls with n
    while (high <= most && !enough(high)) {
        low = high;
        high *= 2;
    }
    if (high > most) return std::nullopt;
    while (high - low > 1) {
        const int mid = low + (high - low) / 2;
        (enough(mid) ? high : low) = mid;
    }
    return high;
}

double confidenceOfFloor(int n, double k, double p) {
    const double root = std::sqrt(static_cast<double>(n));
    const double shift = boost::math::quantile(quietly::Normal(), p) * root;
    return boost::math::cdf(quietly::NonCentralT(n - 1.0, shift), k * root);
}

double upperPrediction(double mean, double sd, int n, int further) {
    return mean + studentQuantile(n - 1.0, 1 - 0.05 / further) * sd * std::sqrt(1 + 1.0 / n);
}

} // namespace anvil::stats
