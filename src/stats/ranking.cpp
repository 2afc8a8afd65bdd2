#include <anvil/stats/ranking.h>

#include <algorithm>
#include <cmath>
#include <iterator>

namespace anvil::stats {

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

const char* word(DrawnSpread spread) {
    static constexpr const char* words[] = {"own", "pooled"};
    static_assert(std::size(words) == static_cast<std::size_t>(DrawnSpread::pooled) + 1);
    return words[static_cast<std::size_t>(spread)];
}

namespace {

std::optional<Means> drawOwnLogMeans(std::span<const Contender> all, int draws) {
    Means out;
    for (const auto& c : all) {
        auto one = drawLogMean(c, draws);
        if (!one) return std::nullopt;
        out.push_back(std::move(*one));
    }
    return out;
}

} // namespace

std::optional<DrawnRanking> drawRanking(std::span<const Contender> contenders, bool moreIsBetter,
                                        std::uint64_t shared, int draws, std::span<const double> centres) {
    if (contenders.empty() || draws < 1) return std::nullopt;
    if (!std::all_of(contenders.begin(), contenders.end(), [&](const Contender& c) {
            return canBeDrawn(c.values) && drawnFairly(c.values, moreIsBetter);
        }))
        return std::nullopt;
    DrawnRanking out;
    const bool own = std::all_of(contenders.begin(), contenders.end(),
                                 [](const Contender& c) { return drawnByOwnSpread(c.values); });
    out.spread = own ? DrawnSpread::own : DrawnSpread::pooled;
    // Where a value is a bound somebody's typical value is the median of a law: on logarithms throughout.
    const bool bounds = std::any_of(contenders.begin(), contenders.end(), [](const Contender& c) {
        return std::any_of(c.values.begin(), c.values.end(),
                           [](const Value& v) { return v.bound != Bound::exact && !v.aside; });
    });
    auto means = !own     ? drawLogMeans(contenders, shared, draws)
                 : bounds ? drawOwnLogMeans(contenders, draws)
                          : drawMeans(contenders, draws);
    if (!means) return std::nullopt;
    const bool logs = !own || bounds;
    for (std::size_t i = 0; i < centres.size(); ++i)
        if (!logs || centres[i] > 0) centre((*means)[i], logs ? std::log(centres[i]) : centres[i]);
    out.places = placesOf(*means, moreIsBetter);
    for (std::size_t i = 0; i < contenders.size(); ++i)
        out.places[i].atLeast = onlyBounds(contenders[i].values) != Bound::exact;
    return out;
}

} // namespace anvil::stats
