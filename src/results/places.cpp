#include <anvil/results/places.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace anvil::results {

using stats::PairVerdict;

namespace {

/// How far a typical value lies from the middle of the window.
double fromMiddle(const Goal& goal, double typical) {
    return std::abs(typical - (goal.window->first + goal.window->second) / 2);
}

bool alike(double a, double b) { return std::abs(a - b) <= 1e-9 * std::max(std::abs(a), std::abs(b)); }

/// Whether two neighbours of the order share a place: nothing tells them apart.
bool samePlace(const Goal& goal, const Group& a, const Group& b) {
    if (goal.sense == Sense::inside)
        return goal.window && a.inside->share() == b.inside->share() &&
               a.inside->most() == b.inside->most() &&
               alike(fromMiddle(goal, *a.summary.typical), fromMiddle(goal, *b.summary.typical));
    return (a.enough && b.enough) ||
           (a.summary.bound == b.summary.bound && alike(*a.summary.typical, *b.summary.typical));
}

} // namespace

bool comesBefore(const Goal& goal, const Group& a, const Group& b) {
    const auto &left = a.summary.typical, &right = b.summary.typical;
    if (left.has_value() != right.has_value()) return left.has_value();
    if (!left) return false;
    if (rankedFairly(goal, a) != rankedFairly(goal, b)) return rankedFairly(goal, a);
    const double x = *left, y = *right;
    const auto beyond = [](const Group& g) { return g.summary.bound != stats::Bound::exact; };
    switch (goal.sense) {
    case Sense::more:
    case Sense::less:
        if (alike(x, y)) return beyond(a) && !beyond(b); // it may be any better
        return goal.sense == Sense::more ? x > y : x < y;
    case Sense::inside:
        if (!goal.window) return false; // board order, until its ends are said
        if (a.inside->share() != b.inside->share()) return a.inside->share() > b.inside->share();
        if (a.inside->most() != b.inside->most()) return a.inside->most() > b.inside->most();
        return !alike(fromMiddle(goal, x), fromMiddle(goal, y)) && fromMiddle(goal, x) < fromMiddle(goal, y);
    }
    return false;
}

void placeGroups(const Goal& goal, std::vector<Group>& groups, const std::vector<std::size_t>& members,
                 const std::vector<PairResult>& pairs) {
    std::map<std::size_t, std::size_t> place; // among the members
    for (std::size_t k = 0; k < members.size(); ++k)
        place[members[k]] = k;
    std::vector<std::vector<PairVerdict>> table(
        members.size(), std::vector<PairVerdict>(members.size(), PairVerdict::notEnough));
    for (const auto& p : pairs) {
        if (p.acrossConditions) continue;
        const auto i = place.find(p.a), j = place.find(p.b);
        if (i == place.end() || j == place.end()) continue;
        const auto x = i->second, y = j->second;
        const bool alike = groups[p.a].enough && groups[p.b].enough;
        table[std::min(x, y)][std::max(x, y)] =
            alike ? PairVerdict::same : p.comparison.verdict; // letters ask only whether a side wins
    }
    const bool window = goal.sense == Sense::inside;
    const auto letters =
        window ? std::vector<std::string>(members.size()) : stats::tieLetters(members.size(), table);
    for (std::size_t k = 0; k < members.size(); ++k) {
        auto& g = groups[members[k]];
        if (!g.summary.typical || !rankedFairly(goal, g) || (window && !goal.window)) continue;
        const bool shared = k > 0 && samePlace(goal, groups[members[k - 1]], g);
        g.rank = shared ? groups[members[k - 1]].rank : static_cast<int>(k) + 1;
        g.letters = letters[k];
    }
}

} // namespace anvil::results
