#include <anvil/results/ranking.h>

#include <algorithm>
#include <numeric>

namespace anvil::results {

std::optional<Ranking> rankingOf(const StudyData& data, const Verdict& verdict, Id condition,
                                 std::uint64_t seed, int draws) {
    if (verdict.goal.sense == Sense::inside || verdict.goal.metric->scale != methods::Scale::measured)
        return std::nullopt; // nothing is drawn of what has no mean
    std::vector<std::size_t> groups;
    std::vector<std::vector<stats::Value>> values;
    for (const auto i : verdict.inCondition(condition)) {
        std::vector<stats::Value> all;
        for (const auto& v : verdict.groups[i].values)
            all.push_back(v.value);
        if (!stats::canBeDrawn(all)) continue;
        groups.push_back(i);
        values.push_back(std::move(all));
    }
    const auto& where = data.conditionAt(condition).name;
    std::vector<stats::Contender> contenders;
    for (std::size_t k = 0; k < groups.size(); ++k)
        contenders.push_back(
            {values[k], stats::streamOf(seed, data.optionAt(verdict.groups[groups[k]].option).name, where)});
    const auto drawn = stats::drawRanking(contenders, verdict.goal.sense == Sense::more,
                                          stats::streamOf(seed, "", where), draws);
    if (!drawn) return std::nullopt;
    std::vector<std::size_t> order(groups.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return drawn->places[a].expected < drawn->places[b].expected;
    });
    Ranking out;
    out.spread = drawn->spread;
    for (const auto k : order) {
        out.groups.push_back(groups[k]);
        out.places.push_back(drawn->places[k]);
    }
    return out;
}

} // namespace anvil::results
