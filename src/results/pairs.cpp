#include <anvil/results/pairs.h>

#include <map>

namespace anvil::results {

using stats::PairVerdict;

namespace {

/// The group as a side of a pair: by the blocks of its pieces where each value has one.
stats::Side sideOf(const StudyData& data, const Group& g) {
    stats::Side side(g.summary);
    for (const auto& v : g.values) {
        if (v.value.state == stats::State::aside) continue;
        const auto* s = data.specimen(v.specimen);
        if (v.value.state != stats::State::exact || !s || s->block.empty()) return {g.summary};
        side.blocked.emplace_back(s->block, v.value.value);
    }
    return side;
}

} // namespace

std::vector<PairResult> pairsOf(const Results& results, const Goal& goal, const std::vector<Group>& groups,
                                const std::vector<std::size_t>& members, bool across) {
    std::map<std::size_t, stats::Side> sides;
    for (const auto m : members)
        sides[m] = sideOf(results.data(), groups[m]);
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
        std::vector<stats::SidePair> compare;
        compare.reserve(family->size());
        for (const auto k : *family)
            compare.emplace_back(&sides[pairs[k].a], &sides[pairs[k].b]);
        std::vector<stats::Comparison> compared(family->size());
        stats::decide(compared, compare, goal.margin);
        for (std::size_t k = 0; k < family->size(); ++k) {
            auto& p = pairs[(*family)[k]];
            p.comparison = std::move(compared[k]);
            p.open = !across && p.comparison.verdict == PairVerdict::tooClose &&
                     p.comparison.moreEach.value_or(0) > 0 && !(groups[p.a].enough && groups[p.b].enough);
        }
    }
    return pairs;
}

} // namespace anvil::results
