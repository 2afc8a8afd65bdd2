#include <anvil/results/pairs.h>

#include <algorithm>
#include <anvil/stats/drawn_means.h>
#include <anvil/stats/drawn_pair.h>
#include <cmath>
#include <map>

namespace anvil::results {

using stats::PairVerdict;

namespace {

/// The group as a side of a pair: by the blocks of its pieces where each value has one. A complete group is
/// tested by its values, also where others of its condition hold bounds and its typical value is a median.
stats::Side sideOf(const StudyData& data, const Group& g) {
    auto summary = g.summary;
    if (!summary.censored() && summary.typicalBasis == stats::TypicalBasis::fittedMedian)
        summary.typical = summary.mean;
    stats::Side side(summary);
    for (const auto& v : g.values) {
        if (v.value.aside) continue;
        const auto* s = data.specimen(v.specimen);
        if (!v.value.exact() || !s || s->block.empty()) return {summary};
        side.blocked.emplace_back(s->block, v.value.value);
    }
    return side;
}

/// Whether a piece counts on both sides, as one with two ends does: they are not independent then.
bool sharePieces(const Group& a, const Group& b) {
    return std::any_of(a.values.begin(), a.values.end(), [&](const GroupValue& x) {
        return std::any_of(b.values.begin(), b.values.end(),
                           [&](const GroupValue& y) { return x.specimen == y.specimen; });
    });
}

/// Draws of the means of groups some of which hold bounds, made when the first pair asks for them.
class DrawnGroups {
public:
    DrawnGroups(const StudyData& data, const std::vector<Group>& groups,
                const std::vector<std::size_t>& members)
        : m_groups(groups) {
        for (const auto i : members) {
            m_values[i] = valuesOf(groups[i]);
            m_streams[i] = stats::streamOf(seed, data.optionAt(groups[i].option).name,
                                           data.conditionAt(groups[i].condition).name);
        }
    }
    /// The pair by draws; empty but for what `compare` tells where it cannot be drawn.
    stats::Comparison compare(std::size_t a, std::size_t b, double margin) {
        const auto &left = m_values[a], &right = m_values[b];
        if (!stats::canBeDrawn(left) || !stats::canBeDrawn(right) || m_groups[a].summary.n < 2 ||
            m_groups[b].summary.n < 2 || sharePieces(m_groups[a], m_groups[b]))
            return {};
        const auto sides = sidesOf(a, b);
        if (!sides) return {};
        auto c = stats::compareDrawn(sides->first, sides->second, margin);
        const auto &x = m_groups[a].summary.typical, &y = m_groups[b].summary.typical;
        if (c.ratio && x && y && *x > 0 && *y > 0) c.ratio = *x / *y; // of the averages that are shown
        return c;
    }
    /// The interval of a pair that was drawn, at another level.
    std::optional<std::pair<double, double>> interval(std::size_t a, std::size_t b, double level) {
        const auto sides = sidesOf(a, b);
        return sides ? stats::drawnInterval(sides->first, sides->second, level) : std::nullopt;
    }

private:
    using Logs = std::optional<std::vector<double>>;

    std::optional<std::pair<stats::DrawnSide, stats::DrawnSide>> sidesOf(std::size_t a, std::size_t b) {
        const auto &left = m_values[a], &right = m_values[b];
        const bool own = stats::drawnByOwnSpread(left) && stats::drawnByOwnSpread(right);
        const auto *x = own ? ownLogs(a) : sharedLogs(a), *y = own ? ownLogs(b) : sharedLogs(b);
        if (!x || !y) return {};
        return std::pair(stats::DrawnSide{*x, stats::onlyBounds(left)},
                         stats::DrawnSide{*y, stats::onlyBounds(right)});
    }
    /// Draws lie about the typical value that is shown.
    void centreAt(std::size_t i, std::vector<double>& logs) const {
        if (const auto& at = m_groups[i].summary.typical; at && *at > 0) stats::centre(logs, std::log(*at));
    }
    const std::vector<double>* ownLogs(std::size_t i) {
        auto at = m_own.find(i);
        if (at == m_own.end()) {
            at = m_own.emplace(i, stats::drawLogMean({m_values[i], m_streams[i]}, draws)).first;
            if (at->second) centreAt(i, *at->second);
        }
        return at->second ? &*at->second : nullptr;
    }
    const std::vector<double>* sharedLogs(std::size_t i) {
        if (!m_drawn) drawShared();
        const auto at = m_shared.find(i);
        return at == m_shared.end() ? nullptr : &at->second;
    }
    void drawShared() {
        m_drawn = true;
        std::vector<stats::Contender> all;
        std::vector<std::size_t> who;
        std::uint64_t spread = seed; // the stream of the shared spread: whoever takes part
        for (const auto& [i, values] : m_values) {
            if (!stats::canBeDrawn(values)) continue;
            all.push_back({values, m_streams[i]});
            who.push_back(i);
            spread ^= m_streams[i];
        }
        auto means = stats::drawLogMeans(all, spread, draws);
        for (std::size_t k = 0; means && k < who.size(); ++k)
            centreAt(who[k], m_shared[who[k]] = std::move((*means)[k]));
    }

    static constexpr std::uint64_t seed = 1;
    static constexpr int draws = 20000;
    const std::vector<Group>& m_groups;
    std::map<std::size_t, std::vector<stats::Value>> m_values;
    std::map<std::size_t, std::uint64_t> m_streams;
    std::map<std::size_t, Logs> m_own;
    std::map<std::size_t, std::vector<double>> m_shared;
    bool m_drawn = false;
};

/// Steps of a scale by their ranks, counts by their tallies; nothing where a side holds bounds.
stats::Comparison withoutMeans(const Goal& goal, const Group& a, const Group& b) {
    if (goal.metric->scale == methods::Scale::counted)
        return a.tally && b.tally ? stats::compareCounted(*a.tally, *b.tally) : stats::Comparison{};
    const auto steps = [](const Group& g) {
        std::vector<double> out;
        for (const auto& v : g.values)
            if (v.value.exact()) out.push_back(v.value.value);
        return out;
    };
    return stats::compareGraded(steps(a), steps(b));
}

/// What the complete groups of a family say on logarithms.
class LogGroups {
public:
    LogGroups(const std::vector<Group>& groups, const std::vector<std::size_t>& members) {
        std::vector<std::optional<stats::LogGroup>> all;
        for (const auto i : members) {
            const auto& g = groups[i];
            std::vector<double> values;
            for (const auto& v : g.values)
                if (v.value.exact()) values.push_back(v.value.value);
            if (!g.summary.censored()) m_logs[i] = stats::logGroup(values);
            all.push_back(m_logs[i]);
        }
        m_spread = stats::pooledSpread(all);
    }
    /// Two of each: their own spreads say next to nothing.
    std::optional<stats::Comparison> ofTwo(std::size_t a, std::size_t b, double margin) const {
        const auto *x = at(a), *y = at(b);
        if (!x || !y || !m_spread || x->n != 2 || y->n != 2) return {};
        auto c = stats::comparePooled(*x, *y, *m_spread, margin);
        return c.p ? std::optional(c) : std::nullopt;
    }

private:
    const stats::LogGroup* at(std::size_t i) const {
        const auto found = m_logs.find(i);
        return found == m_logs.end() || !found->second ? nullptr : &*found->second;
    }
    std::map<std::size_t, std::optional<stats::LogGroup>> m_logs;
    std::optional<stats::PooledSpread> m_spread;
};

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
    DrawnGroups drawn(results.data(), groups, members);
    const LogGroups logs(groups, members);
    for (const auto* family : {&with, &without}) {
        std::vector<stats::SidePair> compare;
        compare.reserve(family->size());
        for (const auto k : *family)
            compare.emplace_back(&sides[pairs[k].a], &sides[pairs[k].b]);
        std::vector<stats::Comparison> compared(family->size());
        for (std::size_t k = 0; k < family->size(); ++k) {
            const auto& p = pairs[(*family)[k]];
            if (goal.metric->scale != methods::Scale::measured) {
                compared[k] = withoutMeans(goal, groups[p.a], groups[p.b]);
            } else if (groups[p.a].summary.censored() || groups[p.b].summary.censored()) {
                compared[k] = drawn.compare(p.a, p.b, goal.margin);
            } else if (sides[p.a].blocked.empty() || sides[p.b].blocked.empty()) {
                if (const auto two = logs.ofTwo(p.a, p.b, goal.margin)) compared[k] = *two;
            }
        }
        stats::decide(compared, compare, goal.margin);
        for (std::size_t k = 0; k < family->size(); ++k) { // a ratio is of the averages that are shown
            const auto &x = groups[pairs[(*family)[k]].a].summary, &y = groups[pairs[(*family)[k]].b].summary;
            if (compared[k].test == stats::PairTest::welch &&
                x.typicalBasis == stats::TypicalBasis::fittedMedian &&
                y.typicalBasis == stats::TypicalBasis::fittedMedian && *x.typical > 0 && *y.typical > 0)
                compared[k].ratio = *x.typical / *y.typical;
        }
        for (std::size_t k = 0; k < family->size(); ++k)
            if (auto& c = compared[k]; c.test == stats::PairTest::censored)
                c.drawnFamily = c.familyLevel == 0.05 ? c.ratioInterval
                                                      : drawn.interval(pairs[(*family)[k]].a,
                                                                       pairs[(*family)[k]].b, c.familyLevel);
        for (std::size_t k = 0; k < family->size(); ++k) {
            auto& p = pairs[(*family)[k]];
            p.comparison = std::move(compared[k]);
            p.open = !across && p.comparison.verdict == PairVerdict::tooClose &&
                     p.comparison.test != stats::PairTest::censored && // more reach is worth more there
                     p.comparison.moreEach.value_or(0) > 0 && !(groups[p.a].enough && groups[p.b].enough);
        }
    }
    return pairs;
}

} // namespace anvil::results
