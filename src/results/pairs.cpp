#include <anvil/results/pairs.h>

#include <anvil/stats/pooled.h>
#include <map>
#include <span>

namespace anvil::results {

using stats::PairVerdict;

namespace {

/// The values of a group that count; empty where any is a bound.
std::vector<double> exactValues(const Group& g) {
    std::vector<double> out;
    for (const auto& v : g.values) {
        if (v.value.state == stats::State::aside) continue;
        if (v.value.state != stats::State::exact) return {};
        out.push_back(v.value.value);
    }
    return out;
}

/// The group as a side of a pair: by the blocks of its pieces where each value has one.
stats::Side sideOf(const StudyData& data, const Group& g) {
    stats::Side side(g.summary);
    side.values = exactValues(g);
    for (const auto& v : g.values) {
        if (v.value.state == stats::State::aside) continue;
        const auto* s = data.specimen(v.specimen);
        if (v.value.state != stats::State::exact || !s || s->block.empty()) {
            side.blocked.clear();
            break;
        }
        side.blocked.emplace_back(s->block, v.value.value);
    }
    return side;
}

/// The spread the groups share, on logarithms, and each pair by it.
void comparePooled(std::vector<PairResult>& pairs, const std::vector<Group>& groups,
                   const std::vector<std::size_t>& members) {
    std::map<std::size_t, std::vector<double>> values;
    std::vector<std::span<const double>> all;
    all.reserve(members.size());
    for (const auto m : members)
        all.emplace_back(values[m] = exactValues(groups[m]));
    const auto spread = stats::pooledSpread(all);
    if (!spread) return;
    for (auto& p : pairs)
        p.comparison.pooledP = stats::pooledP(values[p.a], values[p.b], *spread);
}

} // namespace

std::vector<PairResult> pairsOf(const Results& results, const Goal& goal, const std::vector<Group>& groups,
                                const std::vector<std::size_t>& members, bool across) {
    std::vector<PairResult> pairs;
    std::vector<std::size_t> with, without; // the two families, in board order
    for (std::size_t i = 0; i < members.size(); ++i)
        for (std::size_t j = i + 1; j < members.size(); ++j) {
            const auto &a = groups[members[i]], &b = groups[members[j]];
            const bool control =
                !across && goal.control && (a.option == goal.control || b.option == goal.control);
            (control ? with : without).push_back(pairs.size());
            pairs.push_back({members[i], members[j], across, {}});
        }
    for (const auto* family : {&with, &without}) {
        std::vector<std::pair<stats::Side, stats::Side>> sides;
        for (const auto k : *family)
            sides.emplace_back(sideOf(results.data(), groups[pairs[k].a]),
                               sideOf(results.data(), groups[pairs[k].b]));
        std::vector<stats::Comparison> compared(family->size());
        stats::decide(compared, sides, goal.margin);
        for (std::size_t k = 0; k < family->size(); ++k) {
            auto& p = pairs[(*family)[k]];
            p.comparison = std::move(compared[k]);
            p.open = !across && p.comparison.verdict == PairVerdict::tooClose &&
                     p.comparison.moreEach.value_or(0) > 0 && !(groups[p.a].enough && groups[p.b].enough);
        }
    }
    comparePooled(pairs, groups, members);
    return pairs;
}

} // namespace anvil::results
