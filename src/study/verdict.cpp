#include <anvil/study/verdict.h>

#include <algorithm>
#include <anvil/study/joints.h>
#include <cmath>
#include <numeric>

namespace anvil::study {
namespace {

using stats::PairVerdict;

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

/// Everything a condition's pulls say of the option, and how that stands to what is wanted.
Group groupOf(const StudyData& data, const Readings& readings, const Goal& goal, Id option, Id condition) {
    Group g;
    g.option = option;
    g.condition = condition;
    std::vector<stats::Value> values;
    for (const auto& pull : data.pulls) {
        const auto* s = data.specimen(pull.specimen);
        if (!s || s->condition != condition) continue;
        if (s->option != option && otherEndOf(data, *s) != option) continue;
        const auto* reading = readings.find(pull.id);
        auto got = valueAtEnd(data, pull, *s, option, reading, goal.metric);
        if (pull.practice != data.study.plan.practice)
            got = {std::nullopt, pull.practice ? "pulled for practice" : "not pulled for practice", false};
        const auto bad = readings.unreadable.find(pull.id);
        if (!got.value) {
            const bool damaged = bad != readings.unreadable.end();
            g.leftOut.push_back({pull.id, s->id, damaged ? bad->second : got.whyNot, damaged});
            continue;
        }
        if (got.value->state == stats::State::aside)
            g.leftOut.push_back({pull.id, s->id, "set aside: " + pull.reason, false});
        g.values.push_back({pull.id, s->id, *got.value, got.guess, toppedOut(pull, reading)});
        values.push_back(*got.value);
    }
    g.summary = stats::summarise(values);
    if (g.summary.mean) {
        g.enough = isEnough(goal, *g.summary.mean);
        g.meetsNeed = meetsNeed(goal, *g.summary.mean);
        if (g.summary.basis == stats::MeanBasis::bound) { // it is at least that, and may be any more
            const bool more = goal.sense == Sense::more;
            g.enough = g.enough && more;
            if (g.meetsNeed && *g.meetsNeed != more) g.meetsNeed.reset();
        }
    }
    if (goal.sense == Sense::inside && goal.window) {
        g.inside = InWindow{};
        for (const auto& v : values)
            if (v.state == stats::State::exact) {
                ++g.inside->of;
                g.inside->inside += insideWindow(goal, v.value);
            }
    }
    return g;
}

/// How far a mean lies from the middle of the window.
double fromMiddle(const Goal& goal, double mean) {
    return std::abs(mean - (goal.window->first + goal.window->second) / 2);
}

/// Whether `a` comes before `b`.
bool better(const Goal& goal, const Group& a, const Group& b) {
    if (a.summary.mean.has_value() != b.summary.mean.has_value()) return a.summary.mean.has_value();
    if (!a.summary.mean) return false;
    const double x = *a.summary.mean, y = *b.summary.mean;
    switch (goal.sense) {
    case Sense::more:
        return x > y;
    case Sense::less:
        return x < y;
    case Sense::inside:
        if (!goal.window) return false; // board order, until its ends are said
        return a.inside->share() != b.inside->share() ? a.inside->share() > b.inside->share()
                                                      : fromMiddle(goal, x) < fromMiddle(goal, y);
    }
    return false;
}

/// Whether two neighbours of the order share a place.
bool samePlace(const Goal& goal, const Group& a, const Group& b) {
    if (goal.sense == Sense::inside)
        return goal.window && a.inside->share() == b.inside->share() &&
               fromMiddle(goal, *a.summary.mean) == fromMiddle(goal, *b.summary.mean);
    return a.enough && b.enough;
}

/// Places and tie letters of a condition; its pairs must be complete, its members are best first.
void rank(Verdict& v, const std::vector<std::size_t>& members) {
    std::vector<std::vector<PairVerdict>> table(
        members.size(), std::vector<PairVerdict>(members.size(), PairVerdict::notEnough));
    for (const auto& p : v.pairs) {
        if (p.acrossConditions) continue;
        const auto i = std::find(members.begin(), members.end(), p.a),
                   j = std::find(members.begin(), members.end(), p.b);
        if (i == members.end() || j == members.end()) continue;
        const auto x = static_cast<std::size_t>(i - members.begin()),
                   y = static_cast<std::size_t>(j - members.begin());
        const bool alike = v.groups[p.a].enough && v.groups[p.b].enough;
        table[std::min(x, y)][std::max(x, y)] =
            alike ? PairVerdict::same : p.comparison.verdict; // letters ask only whether a side wins
    }
    const bool window = v.goal.sense == Sense::inside;
    const auto letters =
        window ? std::vector<std::string>(members.size()) : stats::tieLetters(members.size(), table);
    for (std::size_t k = 0; k < members.size(); ++k) {
        auto& g = v.groups[members[k]];
        if (!g.summary.mean || (window && !v.goal.window)) continue; // no place while its ends are not said
        const bool shared = k > 0 && samePlace(v.goal, v.groups[members[k - 1]], g);
        g.rank = shared ? v.groups[members[k - 1]].rank : static_cast<int>(k) + 1;
        g.letters = letters[k];
    }
}

/// Compares every two of the members, in their order. With a control its pairs are one family and those
/// without it another; across conditions there is one.
void comparePairs(Verdict& v, const StudyData& data, const std::vector<std::size_t>& members, bool across) {
    std::vector<PairResult> pairs;
    std::vector<std::size_t> with, without; // the two families, in board order
    for (std::size_t i = 0; i < members.size(); ++i)
        for (std::size_t j = i + 1; j < members.size(); ++j) {
            const auto &a = v.groups[members[i]], &b = v.groups[members[j]];
            if (a.summary.n == 0 || b.summary.n == 0) continue;
            const bool control =
                !across && v.goal.control && (a.option == v.goal.control || b.option == v.goal.control);
            (control ? with : without).push_back(pairs.size());
            pairs.push_back({members[i], members[j], across, {}});
        }
    for (const auto* family : {&with, &without}) {
        std::vector<std::pair<stats::Side, stats::Side>> sides;
        for (const auto k : *family)
            sides.emplace_back(sideOf(data, v.groups[pairs[k].a]), sideOf(data, v.groups[pairs[k].b]));
        std::vector<stats::Comparison> results(family->size());
        stats::decide(results, sides, v.goal.margin);
        for (std::size_t k = 0; k < family->size(); ++k) {
            auto& p = pairs[(*family)[k]];
            p.comparison = std::move(results[k]);
            p.open = !across && p.comparison.verdict == PairVerdict::tooClose &&
                     p.comparison.moreEach.value_or(0) > 0 && !(v.groups[p.a].enough && v.groups[p.b].enough);
        }
    }
    v.pairs.insert(v.pairs.end(), std::make_move_iterator(pairs.begin()),
                   std::make_move_iterator(pairs.end()));
}

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

std::vector<std::size_t> Verdict::inCondition(Id condition) const {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < groups.size(); ++i)
        if (groups[i].condition == condition) out.push_back(i);
    return out;
}

std::size_t Verdict::guessesIn(Id condition) const {
    std::size_t n = 0;
    for (const auto i : inCondition(condition))
        n += static_cast<std::size_t>(
            std::count_if(groups[i].values.begin(), groups[i].values.end(), [](const GroupValue& value) {
                return value.guess && value.value.state != stats::State::aside;
            }));
    return n;
}

bool Verdict::empty() const {
    return std::none_of(groups.begin(), groups.end(), [](const Group& g) { return g.summary.n > 0; });
}

Verdict evaluate(const StudyData& data, const Readings& readings, const Goal& goal) {
    Verdict v;
    v.goal = goal;
    for (const auto& condition : data.conditions) {
        std::vector<Group> groups;
        for (const auto& option : data.options) {
            auto g = groupOf(data, readings, goal, option.id, condition.id);
            if (!g.values.empty() || !g.leftOut.empty()) groups.push_back(std::move(g));
        }
        std::stable_sort(groups.begin(), groups.end(),
                         [&](const Group& a, const Group& b) { return better(goal, a, b); });
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
        comparePairs(v, data, members, false);
        rank(v, ranked);
    }
    for (const auto& option : data.options) {
        std::vector<std::size_t> members; // groups stand by condition, in board order
        for (std::size_t i = 0; i < v.groups.size(); ++i)
            if (v.groups[i].option == option.id) members.push_back(i);
        comparePairs(v, data, members, true);
    }
    return v;
}

} // namespace anvil::study
