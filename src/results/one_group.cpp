#include <anvil/results/one_group.h>

#include <cmath>

namespace anvil::results {

OneGroup analyse(const Group& group) {
    const auto values = valuesOf(group);
    OneGroup out;
    for (const auto family : {stats::Family::normal, stats::Family::lognormal, stats::Family::weibull})
        out.fits[static_cast<std::size_t>(family)] = stats::fit(family, values);
    if (const auto d = stats::Density::of(stats::Family::weibull, values, stats::Density::Grid::fine))
        out.weibull = WeibullIntervals{{1 / d->scaleExceeded(0.025), 1 / d->scaleExceeded(0.975)},
                                       {std::exp(d->exceeded(0, 0.975)), std::exp(d->exceeded(0, 0.025))}};
    out.floors = stats::floorsOf(values);
    out.outliers = stats::outliers(values);
    return out;
}

std::vector<Apart> apartOf(const std::vector<Group>& groups) {
    std::vector<Apart> out;
    for (std::size_t i = 0; i < groups.size(); ++i)
        if (const auto found = stats::outliers(valuesOf(groups[i])))
            for (const auto& o : *found)
                out.push_back({i, o.index, o.p});
    return out;
}

} // namespace anvil::results
