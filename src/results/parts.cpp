#include <anvil/results/parts.h>

#include <algorithm>
#include <boost/math/distributions/normal.hpp>
#include <map>

namespace anvil::results {
namespace {

/// A pull's load and the part it broke; nothing broke: no part and a bound.
struct Shown {
    double load = 0;
    std::optional<std::string> part;
};

std::vector<Shown> shownBy(const StudyData& data, const Group& group) {
    std::vector<Shown> out;
    for (const auto& v : group.values) {
        const auto bound = v.value.bound;
        if (v.value.aside || (bound != stats::Bound::exact && bound != stats::Bound::above)) continue;
        const auto* pull = data.pull(v.pull);
        Shown shown{v.value.value, {}};
        if (pull && !v.toppedOut && (bound == stats::Bound::exact || !pull->outcome.part.empty()))
            shown.part = pull->outcome.part;
        out.push_back(std::move(shown));
    }
    return out;
}

/// The chance that each fails first, by the middles of 2000 equal shares of its own law.
void tellFirst(std::vector<PartStrength>& parts) {
    if (parts.size() < 2) return; // of what never failed nothing is known
    for (const auto& p : parts)
        if (!p.fit || !(p.fit->scale > 0)) return;
    constexpr int strata = 2000;
    const boost::math::normal_distribution<double> normal(0, 1);
    for (auto& p : parts) {
        double sum = 0;
        for (int k = 0; k < strata; ++k) {
            const double y =
                p.fit->location + p.fit->scale * boost::math::quantile(normal, (k + 0.5) / strata);
            double survive = 1;
            for (const auto& other : parts)
                if (&other != &p)
                    survive *= boost::math::cdf(
                        boost::math::complement(normal, (y - other.fit->location) / other.fit->scale));
            sum += survive;
        }
        p.goesFirst = sum / strata;
    }
}

SquareParts squareOf(const std::vector<Shown>& pulls, std::size_t group) {
    SquareParts out;
    out.group = group;
    out.pulls = pulls.size();
    std::map<std::string, std::size_t> counts;
    for (const auto& shown : pulls)
        if (shown.part) ++counts[*shown.part];
    for (const auto& [part, failed] : counts) {
        std::vector<stats::Value> values;
        values.reserve(pulls.size());
        for (const auto& shown : pulls)
            values.push_back(
                {shown.load, shown.part == part ? stats::Bound::exact : stats::Bound::above, shown.load});
        out.parts.push_back({part, failed, stats::fit(stats::Family::lognormal, values), {}});
    }
    std::stable_sort(out.parts.begin(), out.parts.end(),
                     [](const PartStrength& a, const PartStrength& b) { return a.failed > b.failed; });
    tellFirst(out.parts);
    return out;
}

} // namespace

std::vector<SquareParts> partsOf(const StudyData& data, const Verdict& verdict) {
    std::vector<SquareParts> out;
    bool several = false;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const auto pulls = shownBy(data, verdict.groups[i]);
        if (pulls.empty()) continue;
        out.push_back(squareOf(pulls, i));
        several = several || out.back().parts.size() > 1;
    }
    if (!several) out.clear();
    return out;
}

} // namespace anvil::results
