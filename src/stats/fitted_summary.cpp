#include <anvil/stats/fitted_summary.h>

#include "location_scale.h"
#include <anvil/stats/density.h>
#include <anvil/stats/kaplan_meier.h>
#include <cmath>
#include <iterator>
#include <vector>

namespace anvil::stats {
namespace {

MeanBasis basisOf(Family family) {
    static constexpr MeanBasis all[] = {MeanBasis::normal, MeanBasis::lognormal, MeanBasis::weibull};
    static_assert(std::size(all) == static_cast<std::size_t>(Family::weibull) + 1);
    return all[static_cast<std::size_t>(family)];
}

/// 95 % of the family's median: μ, or of a Weibull μ + σ·ln ln 2.
std::optional<std::pair<double, double>> medianInterval(const Density& density, Family family) {
    const double c = family == Family::weibull ? std::log(std::log(2.0)) : 0;
    auto low = density.exceeded(c, 0.975), high = density.exceeded(c, 0.025);
    if (family != Family::normal) low = std::exp(low), high = std::exp(high);
    return std::isfinite(low) && std::isfinite(high) ? std::optional(std::pair(low, high)) : std::nullopt;
}

} // namespace

Summary summariseFast(std::span<const Value> values, Family family) {
    auto s = summarise(values);
    if (!s.censored()) return s;
    s.median = medianOf(kaplanMeier(values));
    const auto fitted = fit(family, values);
    if (!fitted || !std::isfinite(fitted->mean()) || !std::isfinite(fitted->sd())) return s;
    s.mean = fitted->mean();
    s.basis = basisOf(family);
    s.sd = fitted->sd();
    if (*s.mean > 0) s.cv = *s.sd / *s.mean;
    s.typical = fitted->quantile(0.5);
    s.typicalBasis = TypicalBasis::fittedMedian;
    s.bound = Bound::exact;
    return s;
}

Summary summarise(std::span<const Value> values, Family family) {
    auto s = summariseFast(values, family);
    if (!isFitted(s.basis)) return s;
    if (const auto density = Density::of(family, values)) {
        const double low = density->meanExceeded(0.975), high = density->meanExceeded(0.025);
        if (std::isfinite(low) && std::isfinite(high)) s.meanInterval = {low, high};
        s.typicalInterval = medianInterval(*density, family);
    }
    return s;
}

void takeFittedMedian(Summary& s, std::span<const Value> values, Family family) {
    if (s.censored() || !s.typical) return;
    const auto all = observed(family, values);
    if (!all || all->empty()) return; // such as a value below zero under a log-normal
    const auto back = [&](double y) { return family == Family::normal ? y : std::exp(y); };
    if (family != Family::weibull || s.n < 2) {
        std::vector<Value> scaled;
        for (const auto& o : *all)
            scaled.push_back(Value{o.y, Bound::exact, o.y});
        const auto onScale = summarise(scaled);
        s.typical = back(*onScale.mean);
        s.typicalInterval.reset();
        if (const auto& ends = onScale.meanInterval)
            s.typicalInterval = {back(ends->first), back(ends->second)};
    } else if (const auto fitted = fit(family, values)) {
        s.typical = fitted->quantile(0.5);
        s.typicalInterval.reset();
        if (const auto density = Density::of(family, values))
            s.typicalInterval = medianInterval(*density, family);
    } else {
        return;
    }
    s.typicalBasis = TypicalBasis::fittedMedian;
}

} // namespace anvil::stats
