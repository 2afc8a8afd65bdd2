#include <anvil/results/forecasts.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace anvil::results {
namespace {

std::string mostFrequentPart(const StudyData& data, const Group& g) {
    std::map<std::string, int> counts;
    for (const auto& v : g.values)
        if (const auto* pull = data.pull(v.pull); pull && !pull->outcome.part.empty())
            ++counts[pull->outcome.part];
    const auto most = std::max_element(counts.begin(), counts.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    return most == counts.end() ? std::string() : most->first;
}

} // namespace

std::vector<ForecastResult> forecastsOf(const StudyData& data, const Verdict& verdict) {
    std::vector<ForecastResult> out;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const auto& g = verdict.groups[i];
        const auto* square = data.study.plan.square(g.option, g.condition);
        if (!square || g.summary.n == 0) continue;
        for (const auto& f : square->forecasts) {
            ForecastResult r;
            r.group = i;
            r.forecast = &f;
            r.broke = mostFrequentPart(data, g);
            if (g.summary.typical && f.value > 0) {
                r.ratio = *g.summary.typical / f.value;
                r.atLeast = g.summary.bound == stats::Bound::above;
                const bool in = std::abs(*r.ratio - 1) <= f.cv;
                // A bound above the band is outside of it whatever comes; below its end it may still be in.
                if (!r.atLeast || *r.ratio > 1 + f.cv) r.inside = in;
            }
            out.push_back(std::move(r));
        }
    }
    return out;
}

} // namespace anvil::results
