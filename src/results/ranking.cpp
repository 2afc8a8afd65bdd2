#include <anvil/results/ranking.h>

#include <algorithm>
#include <anvil/stats/draws.h>
#include <cmath>
#include <map>
#include <numeric>

namespace anvil::results {
namespace {

/// The logarithms of every group block by block, where each holds one value in each of the same blocks; else
/// empty.
std::vector<std::vector<double>> logsByBlock(const StudyData& data, const Verdict& verdict,
                                             const std::vector<std::size_t>& groups) {
    std::vector<std::map<std::string, double>> all;
    for (const auto i : groups) {
        auto& blocks = all.emplace_back();
        std::size_t counted = 0;
        for (const auto& v : verdict.groups[i].values) {
            if (v.value.aside) continue;
            const auto* piece = data.specimen(v.specimen);
            if (!v.value.exact() || !(v.value.value > 0) || !piece || piece->block.empty()) return {};
            blocks[piece->block] = std::log(v.value.value);
            ++counted;
        }
        if (blocks.size() != counted) return {}; // a block holds two
    }
    if (all.size() < 2) return {};
    std::vector<std::vector<double>> out(all.size());
    for (const auto& [block, value] : all.front()) {
        if (!std::all_of(all.begin(), all.end(), [&](const auto& g) { return g.contains(block); })) continue;
        for (std::size_t g = 0; g < all.size(); ++g)
            out[g].push_back(all[g].at(block));
    }
    const auto whole = out.front().size();
    const bool most =
        std::all_of(all.begin(), all.end(), [&](const auto& g) { return 2 * whole >= g.size(); });
    return whole >= 2 && most ? out : std::vector<std::vector<double>>{};
}

/// In whole blocks the spread is that of the residuals of value ~ option + block on logarithms, with
/// (options − 1)(blocks − 1) degrees of freedom: what the paired tests see.
std::optional<stats::DrawnRanking> byBlocks(const StudyData& data, const Verdict& verdict,
                                            const std::vector<std::size_t>& groups,
                                            const std::vector<stats::Contender>& contenders,
                                            std::uint64_t shared, int draws) {
    const auto logs = logsByBlock(data, verdict, groups);
    if (logs.empty()) return std::nullopt;
    const auto k = logs.size(), b = logs.front().size();
    const auto nb = static_cast<double>(b);
    std::vector<double> option(k, 0), block(b, 0);
    double mean = 0;
    for (std::size_t g = 0; g < k; ++g)
        for (std::size_t j = 0; j < b; ++j)
            option[g] += logs[g][j] / nb, block[j] += logs[g][j] / static_cast<double>(k);
    for (const double o : option)
        mean += o / static_cast<double>(k);
    double squares = 0;
    for (std::size_t g = 0; g < k; ++g)
        for (std::size_t j = 0; j < b; ++j) {
            const double off = logs[g][j] - option[g] - block[j] + mean;
            squares += off * off;
        }
    const double df = static_cast<double>((k - 1) * (b - 1));
    if (!(squares > 1e-24)) return std::nullopt;
    stats::Draws common(shared);
    std::vector<double> spread;
    spread.reserve(static_cast<std::size_t>(draws));
    for (int n = 0; n < draws; ++n)
        spread.push_back(std::sqrt(squares / common.chiSquared(df) / nb));
    stats::Means means(k);
    for (std::size_t g = 0; g < k; ++g) {
        stats::Draws own(contenders[g].stream);
        const auto& typical = verdict.groups[groups[g]].summary.typical;
        const double at = typical && *typical > 0 ? std::log(*typical) : option[g];
        for (int n = 0; n < draws; ++n)
            means[g].push_back(at + spread[static_cast<std::size_t>(n)] * own.normal());
    }
    stats::DrawnRanking out;
    out.spread = stats::DrawnSpread::pooled;
    out.places = stats::placesOf(means, verdict.goal.sense == Sense::more);
    return out;
}

} // namespace

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
        if (!stats::canBeDrawn(all) || !stats::drawnFairly(all, verdict.goal.sense == Sense::more)) continue;
        groups.push_back(i);
        values.push_back(std::move(all));
    }
    const auto& where = data.conditionAt(condition).name;
    std::vector<stats::Contender> contenders;
    for (std::size_t k = 0; k < groups.size(); ++k)
        contenders.push_back(
            {values[k], stats::streamOf(seed, data.optionAt(verdict.groups[groups[k]].option).name, where)});
    std::vector<double> centres;
    for (const auto i : groups)
        centres.push_back(verdict.groups[i].summary.typical.value_or(0));
    const bool more = verdict.goal.sense == Sense::more;
    auto drawn = byBlocks(data, verdict, groups, contenders, stats::streamOf(seed, "", where), draws);
    if (!drawn)
        drawn = stats::drawRanking(contenders, more, stats::streamOf(seed, "", where), draws, centres);
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
