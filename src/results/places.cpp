#include <anvil/results/places.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace anvil::results {

using stats::PairVerdict;

namespace {

/// How far a mean lies from the middle of the window.
double fromMiddle(const Goal& goal, double mean) {
    return std::abs(mean - (goal.window->first + goal.window->second) / 2);
}

/// Whether two neighbours of the order share a place.
bool samePlace(const Goal& goal, const Group& a, const Group& b) {
    if (goal.sense == Sense::inside)
        return goal.window && a.inside->share() == b.inside->share() &&
               fromMiddle(goal, *a.summary.mean) == fromMiddle(goal, *b.summary.mean);
    return a.enough && b.enough;
}

} // namespace

bool comesBefore(const Goal& goal, const Group& a, const Group& b) {
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
        if (!g.summary.mean || (window && !goal.window)) continue; // no place while its ends are not said
        const bool shared = k > 0 && samePlace(goal, groups[members[k - 1]], g);
        g.rank = shared ? groups[members[k - 1]].rank : static_cast<int>(k) + 1;
        g.letters = letters[k];
    }
}

} // namespace anvil::results
