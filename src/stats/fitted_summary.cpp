#include <anvil/stats/fitted_summary.h>

#include <anvil/stats/density.h>
#include <anvil/stats/kaplan_meier.h>
#include <cmath>
#include <iterator>

namespace anvil::stats {
namespace {

MeanBasis basisOf(Family family) {
    static constexpr MeanBasis all[] = {MeanBasis::normal, MeanBasis::lognormal, MeanBasis::weibull};
    static_assert(std::size(all) == static_cast<std::size_t>(Family::weibull) + 1);
    return all[static_cast<std::size_t>(family)];
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
    return s;
}

Summary summarise(std::span<const Value> values, Family family) {
    auto s = summariseFast(values, family);
    if (!isFitted(s.basis)) return s;
    if (const auto density = Density::of(family, values)) {
        const double low = density->meanExceeded(0.975), high = density->meanExceeded(0.025);
        if (std::isfinite(low) && std::isfinite(high)) s.meanInterval = {low, high};
    }
    return s;
}

} // namespace anvil::stats
