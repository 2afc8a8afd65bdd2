#include <anvil/results/probability.h>

#include <algorithm>
#include <anvil/stats/density.h>
#include <cmath>

namespace anvil::results {
namespace {

/// Shares below at which lines and bands are drawn.
constexpr double shares[] = {0.02, 0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 0.98};
constexpr double bandShares[] = {0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 0.98};

void placePoints(const Group& group, ProbabilityPlot& plot) {
    std::vector<const GroupValue*> sorted;
    for (const auto& v : group.values)
        if (!v.value.aside) sorted.push_back(&v);
    std::stable_sort(sorted.begin(), sorted.end(), [](const GroupValue* a, const GroupValue* b) {
        return a->value.value != b->value.value ? a->value.value < b->value.value
                                                : a->value.bound < b->value.bound; // exact before "at least"
    });
    double above = 1;
    for (std::size_t i = 0; i < sorted.size(); ++i) {
        const auto& v = *sorted[i];
        const auto reverse = static_cast<double>(sorted.size() - i);
        if (v.value.exact()) {
            above *= reverse / (reverse + 1);
            plot.points.push_back({v.value.value, 1 - above, v.pull});
        } else {
            plot.bounds.push_back({v.value.value, 1 - above, v.pull});
        }
    }
}

void addBand(const std::vector<stats::Value>& values, PlotLine& line) {
    const auto density = stats::Density::of(line.family, values);
    if (!density) return;
    const bool logs = line.family != stats::Family::normal;
    for (const double below : bandShares) {
        const double c = stats::standardQuantile(line.family, below);
        const double low = density->exceeded(c, 0.95), high = density->exceeded(c, 0.05);
        line.low.push_back({logs ? std::exp(low) : low, below, 0});
        line.high.push_back({logs ? std::exp(high) : high, below, 0});
    }
}

} // namespace

std::optional<ProbabilityPlot> probabilityPlot(const Group& group) {
    const auto values = valuesOf(group);
    std::size_t exact = 0;
    for (const auto& v : values) {
        if (v.bound == stats::Bound::below || v.bound == stats::Bound::between) return {};
        exact += v.exact();
    }
    if (exact < 3) return {};
    ProbabilityPlot plot;
    placePoints(group, plot);
    std::optional<stats::Fit> best;
    for (const auto family : {stats::Family::normal, stats::Family::lognormal, stats::Family::weibull}) {
        const auto fit = stats::fit(family, values);
        if (!fit) continue;
        PlotLine line;
        line.family = family;
        for (const double below : shares)
            line.line.push_back({fit->quantile(1 - below), below, 0});
        plot.lines.push_back(std::move(line));
        if (!best || fit->aic() < best->aic()) best = fit;
    }
    for (auto& line : plot.lines)
        if (best && line.family == best->family) {
            line.best = true;
            addBand(values, line);
        }
    if (plot.lines.empty()) return {};
    return plot;
}

} // namespace anvil::results
