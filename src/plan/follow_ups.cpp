#include <anvil/plan/follow_ups.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <anvil/results/pairs_that_matter.h>
#include <fmt/format.h>
#include <iterator>

namespace anvil::plan {

using namespace domain;
using namespace results;

const char* word(Remedy remedy) {
    static constexpr const char* words[] = {"more_of_each", "more_reach", "stronger_part",
                                            "pull_on",      "test",       "repeat"};
    static_assert(std::size(words) == static_cast<std::size_t>(Remedy::repeatOdd) + 1);
    return words[static_cast<std::size_t>(remedy)];
}

namespace {

constexpr int fewestOfNew = 3, repeatsOfOdd = 2;

/// How many pulls, how long and at what price.
void addEffort(const StudyData& data, FollowUp& f) {
    f.pulls = f.more * static_cast<int>(f.squares.size());
    f.minutes = f.pulls * data.study.plan.minutesEach;
    double cost = 0;
    for (const auto& [option, condition] : f.squares) {
        const auto* o = data.option(option);
        if (!o || !o->unitCost || (!f.currency.empty() && o->currency != f.currency)) return;
        f.currency = o->currency;
        cost += f.more * *o->unitCost;
    }
    if (!f.squares.empty()) f.cost = cost;
}

/// Values without which another would lead: pulled again they settle whether they were odd.
void addOdd(const StudyData& data, const Verdict& verdict, const Sureness& sure, std::vector<FollowUp>& out) {
    for (const auto& odd : sure.odd) {
        if (!odd.leader) continue;
        const auto& piece = data.specimenAt(odd.specimen);
        const auto& would = data.optionAt(verdict.groups[*odd.leader].option).name;
        out.push_back({Remedy::repeatOdd,
                       fmt::format("Without {} {} would lead: pull {} more of {} to see whether it was odd.",
                                   piece.label, would, repeatsOfOdd, data.optionAt(piece.option).name),
                       {{piece.option, piece.condition}},
                       repeatsOfOdd});
    }
}

} // namespace

std::string effortText(const FollowUp& f) {
    std::string text = fmt::format("{} pull{}", f.pulls, f.pulls == 1 ? "" : "s");
    if (f.minutes >= 90)
        text += fmt::format(", about {} h", quantity::significant(f.minutes / 60, 2));
    else if (f.minutes > 0)
        text += fmt::format(", about {:.0f} min", f.minutes);
    if (f.cost) text += fmt::format(", {} {}", quantity::fixed(*f.cost, 2), f.currency);
    return text;
}

std::vector<FollowUp> followUps(const StudyData& data, const Verdict& verdict, const Sureness* sure) {
    std::vector<FollowUp> out;
    const auto name = [&](const Group& g) {
        return data.optionAt(g.option).name +
               (data.conditions.size() > 1 ? " in " + data.conditionAt(g.condition).name : std::string());
    };
    const bool full = data.options.size() <= mostOptionsInFull; // else nobody reads every pair
    for (const auto& p : verdict.pairs) {
        if (!p.open || (!full && !matters(verdict, p))) continue;
        const auto &a = verdict.groups[p.a], &b = verdict.groups[p.b];
        out.push_back({Remedy::moreOfEach,
                       fmt::format("{} and {} are too close to call: {} more of each would settle it.",
                                   name(a), data.optionAt(b.option).name, *p.comparison.moreEach),
                       {{a.option, a.condition}, {b.option, b.condition}},
                       *p.comparison.moreEach});
    }
    if (sure) addOdd(data, verdict, *sure, out);
    for (const auto& g : verdict.groups) {
        int topped = 0, other = 0, ended = 0;
        for (const auto& v : g.values) {
            if (v.value.bound != stats::Bound::above) continue;
            const auto* pull = data.pull(v.pull);
            const bool part = pull && !pull->outcome.part.empty();
            (v.toppedOut ? topped : part ? other : ended) += 1;
        }
        if (topped)
            out.push_back({Remedy::moreReach,
                           fmt::format("{} of {} topped out the rig: pull them again with more reach.",
                                       topped, name(g)),
                           {{g.option, g.condition}},
                           topped});
        if (other)
            out.push_back(
                {Remedy::strongerPart,
                 fmt::format("In {} of {} another part broke: pull them again with that part stronger.",
                             other, name(g)),
                 {{g.option, g.condition}},
                 other});
        if (ended)
            out.push_back({Remedy::pullOn,
                           fmt::format("{} of {} ended before anything broke: pull them again until it does.",
                                       ended, name(g)),
                           {{g.option, g.condition}},
                           ended});
    }
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            const auto* square = data.study.plan.square(o.id, c.id);
            const auto* g = verdict.group(o.id, c.id);
            if ((square && square->struck) || (g && g->summary.n > 0) || data.pulls.empty()) continue;
            out.push_back({Remedy::test,
                           fmt::format("{} in {} has not been tested.", o.name, c.name),
                           {{o.id, c.id}},
                           std::max(fewestOfNew, data.study.plan.replicates)});
        }
    for (auto& f : out)
        addEffort(data, f);
    return out;
}

} // namespace anvil::plan
