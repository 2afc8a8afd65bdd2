#include <anvil/stats/summary.h>

#include "distributions.h"
#include <algorithm>
#include <cmath>
#include <iterator>
#include <vector>

namespace anvil::stats {

const char* word(MeanBasis basis) {
    static constexpr const char* words[] = {"sample",  "bound",  "normal", "lognormal",
                                            "weibull", "median", "counts"};
    static_assert(std::size(words) == static_cast<std::size_t>(MeanBasis::counts) + 1);
    return words[static_cast<std::size_t>(basis)];
}

const char* word(TypicalBasis basis) {
    static constexpr const char* words[] = {"sample", "fitted_median", "bound", "median", "counts"};
    static_assert(std::size(words) == static_cast<std::size_t>(TypicalBasis::counts) + 1);
    return words[static_cast<std::size_t>(basis)];
}

double studentQuantile(double df, double p) { return boost::math::quantile(quietly::StudentsT(df), p); }

double studentUpperTail(double df, double t) {
    return boost::math::cdf(boost::math::complement(quietly::StudentsT(df), t));
}

namespace {

/// Sums of values near the ends of what a double holds: in units of the greatest, so that nothing overflows
/// and no square vanishes.
class Scaled {
public:
    explicit Scaled(std::span<const double> values) {
        for (const double x : values)
            m_unit = std::max(m_unit, std::abs(x));
        if (m_unit == 0) m_unit = 1;
    }
    double mean(std::span<const double> values) const {
        double sum = 0;
        for (const double x : values)
            sum += x / m_unit;
        return sum / static_cast<double>(values.size()) * m_unit;
    }
    /// Standard deviation with n − 1. At the level of rounding it is none.
    double deviation(std::span<const double> values, double mean) const {
        double squares = 0;
        for (const double x : values)
            squares += (x / m_unit - mean / m_unit) * (x / m_unit - mean / m_unit);
        const double s = std::sqrt(squares / static_cast<double>(values.size() - 1)) * m_unit;
        return s <= 1e-12 * std::abs(mean) ? 0 : s;
    }

private:
    double m_unit = 0;
};

/// The mean with every bound where it lies: of "at least" and exact ones it is "at least", of "at most" and
/// exact ones "at most", of both kinds nothing.
void atBounds(Summary& s, std::span<const Value> values) {
    if (s.above > 0 && s.below > 0) return;
    s.bound = s.below > 0 ? Bound::below : Bound::above;
    s.typicalBasis = TypicalBasis::bound;
    std::vector<double> at;
    for (const auto& v : values)
        if (!v.aside) at.push_back(v.bound == Bound::between && s.below > 0 ? v.upper : v.value);
    s.typical = Scaled(at).mean(at);
}

} // namespace

void tellDoubt(Summary& s, double doubt, double resolution) {
    s.doubt = doubt;
    s.resolution = resolution;
    if (s.censored() || !s.typical || !s.sd || s.typicalBasis != TypicalBasis::sample) return;
    const auto n = static_cast<double>(s.n);
    const double spread = std::max(*s.sd, resolution / std::sqrt(3.0));
    const double half = std::hypot(studentQuantile(n - 1, 0.975) * spread / std::sqrt(n), doubt);
    s.typicalInterval = {*s.typical - half, *s.typical + half};
}

Summary summarise(std::span<const Value> values) {
    Summary s;
    std::vector<double> v;
    double greatest = 0;
    for (const auto& x : values) {
        if (x.aside) {
            ++s.aside;
            continue;
        }
        switch (x.bound) {
        case Bound::above:
            ++s.above;
            break;
        case Bound::below:
            ++s.below;
            break;
        case Bound::between:
            ++s.between;
            break;
        case Bound::exact:
            break;
        }
        const double high = x.bound == Bound::between ? x.upper : x.value;
        greatest = v.empty() ? high : std::max(greatest, high);
        v.push_back(x.value);
    }
    s.n = v.size();
    if (v.empty()) return s;
    std::sort(v.begin(), v.end());
    const auto n = static_cast<double>(s.n);
    s.min = v.front();
    s.max = greatest;
    s.lowest = s.min;
    const Scaled scaled(v);
    const double mean = scaled.mean(v);
    if (s.censored()) {
        s.basis = MeanBasis::bound;
        if (s.below == 0) s.mean = mean;
        atBounds(s, values);
        return s;
    }
    s.mean = s.typical = mean;
    s.median = s.n % 2 ? v[s.n / 2] : 0.5 * v[s.n / 2 - 1] + 0.5 * v[s.n / 2];
    if (s.n >= 4) s.dropHighLowMean = scaled.mean(std::span(v).subspan(1, s.n - 2));
    if (s.n < 2) return s;
    s.sd = scaled.deviation(v, mean);
    if (mean > 0) s.cv = *s.sd / mean;
    const double half = studentQuantile(n - 1, 0.975) * *s.sd / std::sqrt(n);
    s.meanInterval = s.typicalInterval = {mean - half, mean + half};
    if (s.n >= 3 && mean - 3 * *s.sd > 0) s.meanMinus3Sd = mean - 3 * *s.sd;
    return s;
}

} // namespace anvil::stats
