#include <anvil/stats/ranking.h>

#include <algorithm>
#include <iterator>

namespace anvil::stats {
namespace {

/// Places of all contenders over all draws.
std::vector<DrawnPlace> placesOf(const Means& means, bool moreIsBetter) {
    const auto groups = means.size(), draws = means.front().size();
    std::vector<std::vector<int>> counts(groups, std::vector<int>(groups, 0));
    // A block of draws at a time, turned so that those of one draw lie side by side.
    constexpr std::size_t block = 64;
    std::vector<std::vector<std::pair<double, std::size_t>>> drawn(block);
    for (std::size_t from = 0; from < draws; from += block) {
        const auto n = std::min(block, draws - from);
        for (auto& d : drawn)
            d.clear();
        for (std::size_t g = 0; g < groups; ++g)
            for (std::size_t k = 0; k < n; ++k)
                drawn[k].emplace_back(moreIsBetter ? -means[g][from + k] : means[g][from + k], g);
        for (std::size_t k = 0; k < n; ++k) {
            std::sort(drawn[k].begin(), drawn[k].end()); // equal ones as they were handed in
            for (std::size_t place = 0; place < groups; ++place)
                ++counts[drawn[k][place].second][place];
        }
    }
    std::vector<DrawnPlace> out(groups);
    const auto n = static_cast<double>(draws);
    for (std::size_t g = 0; g < groups; ++g) {
        out[g].best = counts[g][0] / n;
        double cumulated = 0;
        for (std::size_t place = 0; place < groups; ++place) {
            const double share = counts[g][place] / n;
            cumulated += share;
            out[g].expected += share * static_cast<double>(place + 1);
            if (!out[g].from && cumulated >= 0.05) out[g].from = static_cast<int>(place) + 1;
            if (!out[g].to && cumulated >= 0.95 - 1e-12) out[g].to = static_cast<int>(place) + 1;
        }
    }
    return out;
}

} // namespace

const char* word(DrawnSpread spread) {
    static constexpr const char* words[] = {"own", "pooled"};
    static_assert(std::size(words) == static_cast<std::size_t>(DrawnSpread::pooled) + 1);
    return words[static_cast<std::size_t>(spread)];
}

std::optional<DrawnRanking> drawRanking(std::span<const Contender> contenders, bool moreIsBetter,
                                        std::uint64_t shared, int draws) {
    if (contenders.empty() || draws < 1) return std::nullopt;
    if (!std::all_of(contenders.begin(), contenders.end(),
                     [](const Contender& c) { return canBeDrawn(c.values); }))
        return std::nullopt;
    DrawnRanking out;
    const bool own = std::all_of(contenders.begin(), contenders.end(),
                                 [](const Contender& c) { return drawnByOwnSpread(c.values); });
    out.spread = own ? DrawnSpread::own : DrawnSpread::pooled;
    const auto means = own ? drawMeans(contenders, draws) : drawLogMeans(contenders, shared, draws);
    if (!means) return std::nullopt;
    out.places = placesOf(*means, moreIsBetter);
    for (std::size_t i = 0; i < contenders.size(); ++i)
        out.places[i].atLeast = allAtLeast(contenders[i].values);
    return out;
}

} // namespace anvil::stats
