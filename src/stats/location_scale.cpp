#include "location_scale.h"

#include "distributions.h"
#include <algorithm>
#include <limits>

namespace anvil::stats {
namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();
const double logRoot2Pi = 0.5 * std::log(2 * std::acos(-1.0));

/// φ(z)/P(Z > z) of the normal law. Far out by the asymptotic series (Abramowitz and Stegun 26.2.12).
double hazard(double z) {
    if (z < 30) return std::exp(-0.5 * z * z - logRoot2Pi) / (0.5 * std::erfc(z / std::sqrt(2.0)));
    const double q = 1 / (z * z);
    return z / (1 - q * (1 - 3 * q * (1 - 5 * q)));
}

/// ln P(Z > z) of the normal law.
double logTail(double z) {
    if (z < 30) return std::log(0.5 * std::erfc(z / std::sqrt(2.0)));
    return -0.5 * z * z - logRoot2Pi - std::log(hazard(z));
}

/// ln(1 − e^−x), x > 0.
double logOneMinus(double x) { return x < 0.7 ? std::log(-std::expm1(-x)) : std::log1p(-std::exp(-x)); }

} // namespace

std::optional<std::vector<Observation>> observed(Family family, std::span<const Value> values) {
    std::vector<Observation> out;
    const bool logs = family != Family::normal;
    for (const auto& v : values) {
        if (v.aside) continue;
        const bool two = v.bound == Bound::between;
        // "At most" and the lower end of "between" may reach down to nothing: an end that is not there.
        if (logs && (v.bound == Bound::below || two) && !(v.value > 0)) {
            if (!two || !(v.upper > 0)) return std::nullopt;
            out.push_back({std::log(v.upper), 0, Bound::below});
            continue;
        }
        if (logs && !(v.value > 0)) return std::nullopt;
        if (two && !(v.upper > v.value)) {
            out.push_back({logs ? std::log(v.value) : v.value, 0, Bound::exact});
            continue;
        }
        out.push_back(
            {logs ? std::log(v.value) : v.value, two ? (logs ? std::log(v.upper) : v.upper) : 0, v.bound});
    }
    return out;
}

bool canBeFitted(const std::vector<Observation>& all) {
    double low = -infinite, high = infinite;
    bool bounded = false;
    for (const auto& o : all) {
        const bool below = o.bound == Bound::below, above = o.bound == Bound::above;
        low = std::max(low, below ? -infinite : o.y);
        high = std::min(high, above ? infinite : o.bound == Bound::between ? o.upper : o.y);
        bounded = bounded || (!below && !above);
    }
    return bounded && high < low;
}

Log logDensity(Family family, double z) {
    if (family != Family::weibull) return {-0.5 * z * z - logRoot2Pi, -z, -1};
    const double u = std::exp(z); // least extreme value: f = e^{z − e^z}
    return {z - u, 1 - u, -u};
}

Log logAbove(Family family, double z) {
    if (family != Family::weibull) {
        const double h = hazard(z);
        return {logTail(z), -h, -h * (h - z)};
    }
    const double u = std::exp(z);
    return {-u, -u, -u};
}

Log logBelow(Family family, double z) {
    if (family != Family::weibull) {
        const auto mirrored = logAbove(family, -z);
        return {mirrored.value, -mirrored.first, mirrored.second};
    }
    const double u = std::exp(z), w = u > 700 ? 0 : u / std::expm1(u);
    return {logOneMinus(u), u < 1e-8 ? 1 : w, w * (1 - u - w)};
}

LogBetween logBetween(Family family, double z, double w) {
    // From the side on which both tails are small.
    double a = 0;
    const bool mirror = family != Family::weibull && z > 0;
    if (family == Family::weibull) {
        a = -std::exp(z) + logOneMinus(std::exp(w) - std::exp(z));
    } else {
        const double far = mirror ? logTail(w) : logTail(-z), near = mirror ? logTail(z) : logTail(-w);
        a = near + logOneMinus(std::max(near - far, 1e-300));
    }
    const auto f = logDensity(family, z), g = logDensity(family, w);
    const double p = std::exp(f.value - a), q = std::exp(g.value - a); // densities over the probability
    LogBetween out;
    out.value = a;
    out.z = -p;
    out.w = q;
    out.zz = -p * f.first - p * p;
    out.ww = q * g.first - q * q;
    out.zw = p * q;
    return out;
}

double logLikelihood(Family family, const std::vector<Observation>& all, double location, double scale) {
    double sum = 0;
    for (const auto& o : all) {
        const double z = (o.y - location) / scale;
        switch (o.bound) {
        case Bound::exact:
            sum += logDensity(family, z).value - std::log(scale);
            break;
        case Bound::above:
            sum += logAbove(family, z).value;
            break;
        case Bound::below:
            sum += logBelow(family, z).value;
            break;
        case Bound::between:
            sum += logBetween(family, z, (o.upper - location) / scale).value;
            break;
        }
    }
    return sum;
}

} // namespace anvil::stats
