#include <anvil/results/ratios.h>

#include <algorithm>
#include <array>
#include <numeric>

namespace anvil::results {
namespace {

constexpr std::array keys{"control", "untreated", "rating", "expected", "cost", "weight"};
static_assert(keys.size() == static_cast<std::size_t>(RatioBase::weight) + 1);

/// What a group's mean is divided by, where that is a known number.
std::optional<double> divisor(const StudyData& data, const Group& g, RatioBase base) {
    const auto& option = data.optionAt(g.option);
    switch (base) {
    case RatioBase::rating:
        return option.rating;
    case RatioBase::cost:
        return option.unitCost;
    case RatioBase::weight:
        return option.weight;
    case RatioBase::expected: {
        const auto* square = data.study.plan.square(g.option, g.condition);
        if (!square || square->forecasts.empty()) return {};
        double sum = 0;
        for (const auto& f : square->forecasts)
            sum += f.value;
        return sum / static_cast<double>(square->forecasts.size());
    }
    case RatioBase::control:
    case RatioBase::untreated:
        break;
    }
    return {};
}

std::optional<RatioRung> byNumber(const StudyData& data, const Group& g, std::size_t at, RatioBase base) {
    const auto by = divisor(data, g, base);
    if (!by || !(*by > 0) || !g.summary.typical) return {};
    RatioRung r;
    r.group = at;
    r.ratio = *g.summary.typical / *by;
    if (const auto& ends = g.summary.typicalInterval) r.interval = {ends->first / *by, ends->second / *by};
    r.atLeast = g.summary.bound == stats::Bound::above;
    r.atMost = g.summary.bound == stats::Bound::below;
    return r;
}

/// The ratio of group `at` to group `to`, as it was compared.
std::optional<RatioRung> byPair(const Verdict& verdict, std::size_t at, std::size_t to) {
    for (const auto& p : verdict.pairs) {
        const auto& c = p.comparison;
        if (!c.ratio || !(*c.ratio > 0)) continue;
        if (p.a == at && p.b == to) return RatioRung{at, *c.ratio, stats::overPair(c), c.atLeast, c.atMost};
        if (p.b != at || p.a != to) continue;
        RatioRung r{at, 1 / *c.ratio, {}, c.atMost, c.atLeast};
        if (const auto ends = stats::overPair(c); ends && ends->first > 0)
            r.interval = {1 / ends->second, 1 / ends->first};
        return r;
    }
    return {};
}

/// The group that one is divided by; none: it has none.
std::optional<std::size_t> baseOf(const StudyData& data, const Verdict& verdict, const Group& g,
                                  RatioBase base) {
    const Id option = base == RatioBase::control ? verdict.goal.control : g.option;
    const Id condition = base == RatioBase::control ? g.condition
                         : data.conditions.empty()  ? 0
                                                    : data.conditions.front().id;
    const auto* found = verdict.group(option, condition);
    if (!found || !found->summary.typical) return {};
    return static_cast<std::size_t>(found - verdict.groups.data());
}

std::optional<RatioRung> rungOf(const StudyData& data, const Verdict& verdict, std::size_t at,
                                RatioBase base) {
    const auto& g = verdict.groups[at];
    if (base != RatioBase::control && base != RatioBase::untreated) return byNumber(data, g, at, base);
    if (base == RatioBase::control && !verdict.goal.control) return {};
    const auto to = baseOf(data, verdict, g, base);
    if (!to) return {};
    if (*to == at) {
        RatioRung r;
        r.group = at;
        r.ratio = 1;
        r.itself = true;
        return r;
    }
    return byPair(verdict, at, *to);
}

/// One of a condition with a rung of this base; the greatest ratio.
const RatioRung* firstIn(const Verdict& verdict, const std::vector<RatioRung>& rungs, Id condition) {
    for (const auto& r : rungs)
        if (verdict.groups[r.group].condition == condition) return &r;
    return nullptr;
}

std::vector<std::size_t> stillRated(const Verdict& verdict, const std::vector<RatioRung>& rating,
                                    const std::vector<RatioRung>& untreated, Id condition) {
    std::vector<std::size_t> out;
    for (const auto& r : rating) {
        if (verdict.groups[r.group].condition != condition || r.ratio < 1) continue;
        for (const auto& u : untreated)
            if (u.group == r.group && u.interval && u.interval->second < 1) out.push_back(r.group);
    }
    return out;
}

} // namespace

std::string_view key(RatioBase base) { return keys[static_cast<std::size_t>(base)]; }

std::optional<RatioBase> ratioBaseFromKey(std::string_view key) {
    for (std::size_t i = 0; i < keys.size(); ++i)
        if (key == keys[i]) return static_cast<RatioBase>(i);
    return {};
}

std::vector<RatioRung> ratiosOf(const StudyData& data, const Verdict& verdict, RatioBase base) {
    std::vector<RatioRung> out;
    if (base == RatioBase::rating && verdict.goal.metric->dimension != quantity::Dimension::force) return out;
    if (base == RatioBase::untreated && data.conditions.size() < 2) return out;
    for (const auto& condition : data.conditions) {
        if (base == RatioBase::untreated && &condition == &data.conditions.front()) continue;
        const auto from = static_cast<std::ptrdiff_t>(out.size());
        for (const auto i : verdict.inCondition(condition.id))
            if (auto r = rungOf(data, verdict, i, base)) out.push_back(*r);
        std::stable_sort(out.begin() + from, out.end(),
                         [](const RatioRung& a, const RatioRung& b) { return a.ratio > b.ratio; });
    }
    const auto others = std::count_if(out.begin(), out.end(), [](const RatioRung& r) { return !r.itself; });
    if (others < 2) out.clear();
    return out;
}

std::vector<RatioBase> ratioBases(const StudyData& data, const Verdict& verdict) {
    std::vector<RatioBase> out;
    for (std::size_t i = 0; i < keys.size(); ++i)
        if (const auto base = static_cast<RatioBase>(i); !ratiosOf(data, verdict, base).empty())
            out.push_back(base);
    return out;
}

std::vector<Baselines> baselinesOf(const StudyData& data, const Verdict& verdict) {
    std::vector<Baselines> out;
    const auto rating = ratiosOf(data, verdict, RatioBase::rating);
    const auto untreated = ratiosOf(data, verdict, RatioBase::untreated);
    for (std::size_t k = 1; k < data.conditions.size(); ++k) {
        const Id condition = data.conditions[k].id;
        const auto *a = firstIn(verdict, rating, condition), *b = firstIn(verdict, untreated, condition);
        if (!a || !b) continue;
        Baselines two{condition, a->group, b->group,
                      a->ratio,  b->ratio, stillRated(verdict, rating, untreated, condition)};
        if (a->group != b->group || !two.stillRated.empty()) out.push_back(std::move(two));
    }
    return out;
}

} // namespace anvil::results
