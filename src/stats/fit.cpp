#include <anvil/stats/fit.h>

#include "distributions.h"
#include "location_scale.h"
#include <cmath>
#include <iterator>

namespace anvil::stats {
namespace {

constexpr const char* keys[] = {"normal", "lognormal", "weibull"};
static_assert(std::size(keys) == static_cast<std::size_t>(Family::weibull) + 1);

/// ln L and its derivatives by a = 1/scale and b = location/scale, in which z = a·y − b.
struct Slope {
    double value = 0, a = 0, b = 0, aa = 0, ab = 0, bb = 0;

    void add(const Log& l, double y) {
        value += l.value;
        a += l.first * y;
        b -= l.first;
        aa += l.second * y * y;
        ab -= l.second * y;
        bb += l.second;
    }
    void add(const LogBetween& l, double y, double v) {
        value += l.value;
        a += l.z * y + l.w * v;
        b -= l.z + l.w;
        aa += l.zz * y * y + 2 * l.zw * y * v + l.ww * v * v;
        ab -= l.zz * y + l.zw * (y + v) + l.ww * v;
        bb += l.zz + 2 * l.zw + l.ww;
    }
};

Slope slopeAt(Family family, const std::vector<Observation>& all, double a, double b) {
    Slope s;
    for (const auto& o : all) {
        const double z = a * o.y - b;
        switch (o.bound) {
        case Bound::exact:
            s.add(logDensity(family, z), o.y);
            s.value += std::log(a);
            s.a += 1 / a;
            s.aa -= 1 / (a * a);
            break;
        case Bound::above:
            s.add(logAbove(family, z), o.y);
            break;
        case Bound::below:
            s.add(logBelow(family, z), o.y);
            break;
        case Bound::between:
            s.add(logBetween(family, z, a * o.upper - b), o.y, o.upper);
            break;
        }
    }
    return s;
}

/// The maximum over a > 0 and b; empty where it runs away.
std::optional<std::pair<double, double>> climb(Family family, const std::vector<Observation>& all) {
    double a = 1, b = 0;
    auto at = slopeAt(family, all, a, b);
    for (int step = 0; step < 200; ++step) {
        const double det = at.aa * at.bb - at.ab * at.ab;
        if (!std::isfinite(at.value) || !(det > 0)) return std::nullopt;
        double da = -(at.bb * at.a - at.ab * at.b) / det, db = -(at.aa * at.b - at.ab * at.a) / det;
        if (std::abs(da) <= 1e-13 * a && std::abs(db) <= 1e-13 * (1 + std::abs(b))) break;
        Slope next;
        int halved = 0;
        for (; halved < 60; ++halved, da /= 2, db /= 2) {
            if (!(a + da > 0.01 * a)) continue;
            next = slopeAt(family, all, a + da, b + db);
            if (std::isfinite(next.value) && next.value >= at.value - 1e-14 * std::abs(at.value)) break;
        }
        if (halved == 60) break;
        a += da;
        b += db;
        at = next;
        if (a < 1e-6 || a > 1e9) return std::nullopt; // at the edge: no spread, or an endless one
    }
    return std::pair(a, b);
}

} // namespace

const char* key(Family family) { return keys[static_cast<std::size_t>(family)]; }

std::optional<Family> familyFromKey(std::string_view key) {
    for (std::size_t i = 0; i < std::size(keys); ++i)
        if (key == keys[i]) return static_cast<Family>(i);
    return {};
}

std::optional<Fit> fit(Family family, std::span<const Value> values) {
    const auto all = observed(family, values);
    if (!all || !canBeFitted(*all)) return std::nullopt;
    // In units of the range, from the middle: the steps need no scale then.
    double low = all->front().y, high = low;
    for (const auto& o : *all) {
        low = std::min(low, o.y);
        high = std::max(high, o.bound == Bound::between ? o.upper : o.y);
    }
    const double middle = 0.5 * low + 0.5 * high, range = 0.5 * high - 0.5 * low;
    if (!(range > 0) || range <= 1e-12 * std::max(std::abs(low), std::abs(high))) return std::nullopt;
    auto scaled = *all;
    for (auto& o : scaled) {
        o.y = (o.y - middle) / range;
        o.upper = (o.upper - middle) / range;
    }
    const auto top = climb(family, scaled);
    if (!top) return std::nullopt;
    Fit f;
    f.family = family;
    f.scale = range / top->first;
    f.location = middle + range * top->second / top->first;
    f.logLikelihood = logLikelihood(family, *all, f.location, f.scale);
    if (family != Family::normal) // dy = dx / x
        for (const auto& o : *all)
            if (o.bound == Bound::exact) f.logLikelihood -= o.y;
    if (!std::isfinite(f.location) || !(f.scale > 0) || !std::isfinite(f.logLikelihood)) return std::nullopt;
    return f;
}

double Fit::weibullScale() const { return std::exp(location); }

double Fit::mean() const {
    switch (family) {
    case Family::normal:
        return location;
    case Family::lognormal:
        return std::exp(location + 0.5 * scale * scale);
    case Family::weibull:
        return std::exp(location) * std::tgamma(1 + scale);
    }
    return 0;
}

double Fit::sd() const {
    switch (family) {
    case Family::normal:
        return scale;
    case Family::lognormal:
        return mean() * std::sqrt(std::expm1(scale * scale));
    case Family::weibull: {
        const double first = std::tgamma(1 + scale);
        return std::exp(location) * std::sqrt(std::max(0.0, std::tgamma(1 + 2 * scale) - first * first));
    }
    }
    return 0;
}

double standardQuantile(Family family, double below) {
    if (family == Family::weibull) return std::log(-std::log(1 - below));
    return boost::math::quantile(quietly::Normal(0, 1), below);
}

double Fit::quantile(double exceeded) const {
    const double y = location + scale * standardQuantile(family, 1 - exceeded);
    return family == Family::normal ? y : std::exp(y);
}

} // namespace anvil::stats
