#include <anvil/results/verdict.h>

#include <algorithm>
#include <anvil/stats/power.h>
#include <cmath>

namespace anvil::results {
namespace {

template <class T> std::size_t placeOf(const std::vector<T>& all, Id id) {
    return static_cast<std::size_t>(
        std::find_if(all.begin(), all.end(), [&](const T& x) { return x.id == id; }) - all.begin());
}

} // namespace

std::string sharedLetters(const Verdict& verdict, const Group& group) {
    std::vector<std::string> letters{group.letters};
    for (const auto& other : verdict.groups)
        if (other.condition == group.condition && other.option != group.option)
            letters.push_back(other.letters);
    return stats::sharedLetters(letters, 0);
}

stats::Family floorLaw(const Verdict& verdict) {
    const bool bounds = std::any_of(verdict.groups.begin(), verdict.groups.end(),
                                    [](const Group& g) { return g.summary.censored(); });
    return verdict.goal.family.value_or(bounds ? stats::Family::lognormal : stats::Family::normal);
}

std::optional<SinglePulls> singlePulls(const Verdict& verdict, const PairResult& pair) {
    const auto &a = verdict.groups[pair.a].summary, &b = verdict.groups[pair.b].summary;
    if ((a.n > 1 && b.n > 1) || !pair.comparison.ratio || !(*pair.comparison.ratio > 0)) return {};
    SinglePulls out;
    out.ratio = *pair.comparison.ratio;
    const double cv = verdict.usual.cv, off = std::abs(std::log(out.ratio));
    out.chance = std::erfc(off / (std::sqrt(2.0) * cv) / std::sqrt(2.0)); // both tails of the normal law
    out.difference = std::max(std::exp(off) - 1, verdict.goal.margin);
    out.each = stats::replicatesFor(cv, out.difference);
    return out;
}

UsualSpread pooledSpread(std::span<const Verdict> verdicts) {
    UsualSpread out;
    double squares = 0;
    for (const auto& v : verdicts)
        for (const auto& g : v.groups)
            if (g.summary.cv && !g.summary.censored() && g.summary.n >= 2) {
                squares += static_cast<double>(g.summary.n - 1) * *g.summary.cv * *g.summary.cv;
                out.df += g.summary.n - 1;
            }
    constexpr std::size_t least = 6;
    if (out.df < least || !(squares > 0)) return {};
    out.cv = std::sqrt(squares / static_cast<double>(out.df));
    return out;
}

std::vector<std::size_t> Verdict::inCondition(Id condition) const {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < groups.size(); ++i)
        if (groups[i].condition == condition) out.push_back(i);
    return out;
}

const Group* Verdict::group(Id option, Id condition) const {
    const auto at = std::find_if(groups.begin(), groups.end(), [&](const Group& g) {
        return g.option == option && g.condition == condition;
    });
    return at == groups.end() ? nullptr : &*at;
}

std::size_t Verdict::guessesIn(Id condition) const {
    std::size_t n = 0;
    for (const auto i : inCondition(condition))
        n += static_cast<std::size_t>(
            std::count_if(groups[i].values.begin(), groups[i].values.end(),
                          [](const GroupValue& value) { return value.guess && !value.value.aside; }));
    return n;
}

bool Verdict::hasBoth(const PairResult& pair) const {
    return groups[pair.a].summary.n > 0 && groups[pair.b].summary.n > 0;
}

bool Verdict::empty() const {
    return std::none_of(groups.begin(), groups.end(), [](const Group& g) { return g.summary.n > 0; });
}

Verdict evaluate(const Results& results, const Goal& wanted) {
    const auto& data = results.data();
    Verdict v;
    v.goal = wanted;
    if (!v.goal.family)
        if (const auto* method = methods::find(data.study.plan.method)) v.goal.family = method->family;
    const auto& goal = v.goal;
    for (const auto& condition : data.conditions) {
        std::vector<Group> groups;
        for (const auto& option : data.options) {
            auto g = groupOf(results, goal, option.id, condition.id);
            if (!g.values.empty() || !g.leftOut.empty()) groups.push_back(std::move(g));
        }
        speakAlike(goal, groups);
        std::stable_sort(groups.begin(), groups.end(),
                         [&](const Group& a, const Group& b) { return comesBefore(goal, a, b); });
        v.groups.insert(v.groups.end(), std::make_move_iterator(groups.begin()),
                        std::make_move_iterator(groups.end()));
    }
    // Pairs are told in board order, whoever leads.
    for (const auto& condition : data.conditions) {
        const auto ranked = v.inCondition(condition.id);
        auto members = ranked;
        std::sort(members.begin(), members.end(), [&](auto i, auto j) {
            return placeOf(data.options, v.groups[i].option) < placeOf(data.options, v.groups[j].option);
        });
        const auto pairs = pairsOf(results, goal, v.groups, members, false);
        placeGroups(goal, v.groups, ranked, pairs);
        v.pairs.insert(v.pairs.end(), pairs.begin(), pairs.end());
    }
    for (const auto& option : data.options) {
        std::vector<std::size_t> members; // groups stand by condition, in board order
        for (std::size_t i = 0; i < v.groups.size(); ++i)
            if (v.groups[i].option == option.id) members.push_back(i);
        const auto pairs = pairsOf(results, goal, v.groups, members, true);
        v.pairs.insert(v.pairs.end(), pairs.begin(), pairs.end());
    }
    return v;
}

Verdict evaluate(const StudyData& data, const Readings& readings, const Goal& goal) {
    return evaluate(Results(data, readings), goal);
}

} // namespace anvil::results
