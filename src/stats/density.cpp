#include <anvil/stats/density.h>

#include "distributions.h"
#include "location_slice.h"
#include <algorithm>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>

namespace anvil::stats {

struct Density::Row {
    Slice slice;
    double weight = 0; ///< the share of σ's density
};

namespace {

// Steps of ln σ for each of its own width: what is summed over them is smooth and needs few; its quantiles
// are read between them and need more.
constexpr double fewSteps = 6, manySteps = 15;

template <class F> double solve(const F& f, double low, double high) {
    std::uintmax_t steps = 100;
    const auto [a, b] = boost::math::tools::toms748_solve(
        f, low, high,
        [](double x, double y) { return std::abs(x - y) <= 1e-12 * (std::abs(x) + std::abs(y)); }, steps);
    return 0.5 * (a + b);
}

} // namespace

Density::Density(const Density&) = default;
Density::Density(Density&&) noexcept = default;
Density& Density::operator=(const Density&) = default;
Density& Density::operator=(Density&&) noexcept = default;
Density::~Density() = default;
Density::Density() = default;

std::optional<Density> Density::of(Family family, std::span<const Value> values, Grid grid) {
    constexpr std::size_t leastExact = 3;
    const auto best = stats::fit(family, values);
    const auto all = observed(family, values);
    if (!best || !all) return std::nullopt;
    const auto r = static_cast<std::size_t>(std::count_if(
        all->begin(), all->end(), [](const Observation& o) { return o.bound == Bound::exact; }));
    if (r < leastExact) return std::nullopt;
    Density out;
    out.m_fit = *best;
    const double step =
        1 / ((grid == Grid::fine ? manySteps : fewSteps) * std::sqrt(0.5 * static_cast<double>(r) + 1));
    double greatest = -1e308;
    const auto walk = [&](double sign, int first) {
        std::vector<Row> rows;
        double location = best->location;
        for (int k = first; k < 4000; ++k) {
            // dσ/σ = d ln σ: what is integrated over ln σ is the likelihood itself.
            Row row{sliceAt(family, *all, best->scale * std::exp(sign * k * step), location), 0};
            row.weight = row.slice.logIntegral;
            if (row.weight < greatest - 28) break;
            greatest = std::max(greatest, row.weight);
            location = row.slice.top;
            rows.push_back(std::move(row));
        }
        return rows;
    };
    auto upper = walk(1, 0), lower = walk(-1, 1);
    std::reverse(lower.begin(), lower.end());
    out.m_rows = std::move(lower);
    out.m_rows.insert(out.m_rows.end(), std::make_move_iterator(upper.begin()),
                      std::make_move_iterator(upper.end()));
    double sum = 0;
    for (auto& row : out.m_rows)
        sum += row.weight = std::exp(row.weight - greatest);
    if (!(sum > 0)) return std::nullopt;
    for (auto& row : out.m_rows)
        row.weight /= sum;
    return out;
}

double Density::atLeast(double c, double q) const {
    return exceedingShare([&](double scale) { return q - c * scale; });
}

template <class At> double Density::exceedingShare(const At& at) const {
    double sum = 0;
    for (const auto& row : m_rows)
        sum += row.weight * (1 - row.slice.below(at(row.slice.scale)));
    return sum;
}

std::vector<double> Density::drawn(Draws& random, int draws) const {
    // P(μ ≤ q) on a grid that widens with the distance from the middle (q = m + s·sinh t, so that heavy tails
    // are in it), read backwards.
    constexpr int half = 800;
    constexpr double widest = 9;
    std::vector<double> at, below;
    const double unit = m_fit.scale / 2;
    for (int k = -half; k <= half; ++k) {
        at.push_back(m_fit.location + unit * std::sinh(widest * k / half));
        below.push_back(1 - atLeast(0, at.back()));
    }
    std::vector<double> out;
    out.reserve(static_cast<std::size_t>(draws));
    for (int k = 0; k < draws; ++k) {
        const double u = random.uniform();
        const auto next = std::upper_bound(below.begin(), below.end(), u);
        if (next == below.begin() || next == below.end()) {
            out.push_back(next == below.begin() ? at.front() : at.back());
            continue;
        }
        const auto i = static_cast<std::size_t>(next - below.begin());
        const double share = (u - below[i - 1]) / (below[i] - below[i - 1]);
        out.push_back(at[i - 1] + share * (at[i] - at[i - 1]));
    }
    return out;
}

double Density::exceeded(double c, double probability) const {
    return crossing([&](double q) { return atLeast(c, q) - probability; });
}

namespace {

/// What the mean lies above the location, on the scale of y: ln E(X) = μ + σ²/2 of a log-normal, μ + ln Γ(1 +
/// σ) of a Weibull.
double meanAbove(Family family, double scale) {
    return family == Family::normal      ? 0
           : family == Family::lognormal ? 0.5 * scale * scale
                                         : std::lgamma(1 + scale);
}

} // namespace

double Density::meanExceeded(double probability) const {
    const auto family = m_fit.family;
    const double y = crossing([&](double q) {
        return exceedingShare([&](double scale) { return q - meanAbove(family, scale); }) - probability;
    });
    return family == Family::normal ? y : std::exp(y);
}

double Density::meanAtLeast(double q) const {
    const auto family = m_fit.family;
    if (family != Family::normal && !(q > 0)) return 1;
    const double y = family == Family::normal ? q : std::log(q);
    return exceedingShare([&](double scale) { return y - meanAbove(family, scale); });
}

double Density::nextAtLeast(double q) const {
    const auto family = m_fit.family;
    if (family != Family::normal && !(q > 0)) return 1;
    const double y = family == Family::normal ? q : std::log(q);
    double sum = 0;
    for (const auto& row : m_rows)
        sum += row.weight * row.slice.expected([&](double location) {
            return std::exp(logAbove(family, (y - location) / row.slice.scale).value);
        });
    return sum;
}

template <class F> double Density::crossing(const F& f) const {
    double low = m_fit.location, high = m_fit.location;
    for (double by = m_fit.scale; f(low) < 0; by *= 2)
        low -= by;
    for (double by = m_fit.scale; f(high) > 0; by *= 2)
        high += by;
    return low == high ? low : solve(f, low, high);
}

double Density::scaleExceeded(double probability) const {
    // The cumulated density at each row by the trapezoidal rule with the first term of Euler and Maclaurin,
    // and Hermite's cubic between: its slope is the row's weight.
    const auto weight = [&](std::size_t k) { return k < m_rows.size() ? m_rows[k].weight : 0; };
    double before = 0, sum = 0;
    for (std::size_t k = 0; k + 1 < m_rows.size(); ++k) {
        const auto at = [&](std::size_t i, double all) {
            return all + 0.5 * weight(i) - (weight(i + 1) - (i > 0 ? weight(i - 1) : 0)) / 24;
        };
        sum = before + weight(k);
        const double p = at(k, before), q = at(k + 1, sum), m = weight(k), n = weight(k + 1),
                     wanted = 1 - probability;
        if (q >= wanted) {
            const auto f = [&](double t) {
                return p + t * (m + t * (3 * (q - p) - 2 * m - n + t * (2 * (p - q) + m + n))) - wanted;
            };
            const double t = f(0) >= 0 ? 0 : solve(f, 0, 1);
            return m_rows[k].slice.scale * std::pow(m_rows[k + 1].slice.scale / m_rows[k].slice.scale, t);
        }
        before = sum;
    }
    return m_rows.back().slice.scale;
}

double Density::floor(double share, double confidence) const {
    const double z = m_fit.family == Family::weibull
                         ? std::log(-std::log(share))
                         : boost::math::quantile(quietly::Normal(0, 1), 1 - share);
    const double y = exceeded(z, confidence);
    return m_fit.family == Family::normal ? y : std::exp(y);
}

} // namespace anvil::stats
