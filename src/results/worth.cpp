#include <anvil/results/worth.h>

#include <algorithm>
#include <anvil/stats/floors.h>

namespace anvil::results {
namespace {

using Interval = std::optional<std::pair<double, double>>;

Interval over(const Interval& interval, double by) {
    return interval ? Interval({interval->first / by, interval->second / by}) : std::nullopt;
}

Worth ofGroup(const Verdict& verdict, const Option& option, const Group& group, std::size_t at) {
    Worth w;
    w.group = at;
    w.cost = *option.unitCost;
    const auto& s = group.summary;
    w.atLeast = s.bound == stats::Bound::above;
    if (s.typical && w.cost > 0) {
        w.perCost = *s.typical / w.cost;
        w.perCostInterval = over(s.typicalInterval, w.cost);
    }
    if (s.typical && option.weight && *option.weight > 0) {
        w.perWeight = *s.typical / *option.weight;
        w.perWeightInterval = over(s.typicalInterval, *option.weight);
    }
    w.floor = stats::floorOf(floorLaw(verdict), valuesOf(group), 0.90, 0.95);
    return w;
}

/// Marks those of a condition that nobody beats on both price and strength.
void markUnbeaten(const Verdict& verdict, const std::vector<Worth*>& members) {
    const bool byFloor =
        std::all_of(members.begin(), members.end(), [](const Worth* w) { return w->floor.has_value(); });
    const auto strength = [&](const Worth& w) {
        return byFloor ? *w.floor : *verdict.groups[w.group].summary.typical;
    };
    for (auto* w : members)
        w->unbeaten = std::none_of(members.begin(), members.end(), [&](const Worth* other) {
            const bool asGood = other->cost <= w->cost && strength(*other) >= strength(*w);
            return asGood && (other->cost < w->cost || strength(*other) > strength(*w));
        });
}

} // namespace

std::vector<Worth> worthOf(const StudyData& data, const Verdict& verdict) {
    std::vector<Worth> out;
    if (verdict.goal.sense != Sense::more) return out;
    std::string currency;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i) {
        const auto& g = verdict.groups[i];
        const auto& option = data.optionAt(g.option);
        if (!option.unitCost || !g.summary.typical) continue;
        if (currency.empty()) currency = option.currency; // said once, it is that of all
        if (!option.currency.empty() && option.currency != currency) return {}; // cannot be compared
        out.push_back(ofGroup(verdict, option, g, i));
    }
    bool compared = false;
    for (const auto& condition : data.conditions) {
        std::vector<Worth*> members;
        for (auto& w : out)
            if (verdict.groups[w.group].condition == condition.id) members.push_back(&w);
        compared = compared || members.size() > 1;
        markUnbeaten(verdict, members);
    }
    if (!compared) out.clear();
    return out;
}

} // namespace anvil::results
