#include <anvil/stats/treatment.h>

#include "distributions.h"
#include <anvil/stats/summary.h>
#include <boost/math/distributions/fisher_f.hpp>
#include <cmath>
#include <vector>

namespace anvil::stats {
std::optional<Treatment> treatmentOf(std::span<const TreatedPair> options) {
    struct Effect {
        double weight, difference;
    };
    std::vector<Effect> effects;
    double weights = 0, sum = 0, within = 0, values = 0;
    for (const auto& o : options) {
        if (!o.control || !o.treated || o.control->n == 0 || o.treated->n == 0) continue;
        const auto &control = *o.control, &treated = *o.treated;
        const auto n = static_cast<double>(control.n), m = static_cast<double>(treated.n);
        const double weight = n * m / (n + m);
        effects.push_back({weight, treated.mean - control.mean});
        weights += weight;
        sum += weight * effects.back().difference;
        within += control.squares + treated.squares;
        values += n + m;
    }
    if (effects.empty()) return std::nullopt;
    const auto count = static_cast<double>(effects.size());
    Treatment out;
    out.options = effects.size();
    const double effect = sum / weights;
    out.ratio = std::exp(effect);
    double between = 0;
    for (const auto& e : effects)
        between += e.weight * (e.difference - effect) * (e.difference - effect);
    out.df = values - count - 1;
    const double left = within + between;
    if (out.df > 0 && left > 1e-24) {
        const double se = std::sqrt(left / out.df / weights), half = studentQuantile(out.df, 0.975) * se;
        out.ratioInterval = {std::exp(effect - half), std::exp(effect + half)};
        out.p = std::fmin(1.0, 2 * studentUpperTail(out.df, std::abs(effect) / se));
    }
    const double pure = values - 2 * count;
    if (pure > 0 && count > 1 && within > 1e-24) {
        using F = boost::math::fisher_f_distribution<double, quietly::Policy>;
        const double f = between / (count - 1) / (within / pure);
        out.interactionP = finite(boost::math::cdf(boost::math::complement(F(count - 1, pure), f)));
    }
    return out;
}

} // namespace anvil::stats
