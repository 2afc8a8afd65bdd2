// How sure a verdict is: chances to be best, and what it hangs on.
#pragma once

#include <anvil/results/ranking.h>

namespace anvil::results {

/// A single value without which something turns.
struct Odd {
    Id pull = 0, specimen = 0, condition = 0;
    std::optional<std::size_t> leader; ///< the group that would lead instead
    struct Turned {
        std::size_t pair = 0; ///< index of the verdict's pairs
        stats::PairVerdict now = stats::PairVerdict::notEnough;
    };
    std::vector<Turned> pairs; ///< would be called otherwise
};

/// Everything that says how far a verdict can be trusted.
struct Sureness {
    std::map<Id, Ranking> rankings; ///< by condition; missing where nothing can be drawn
    std::vector<Odd> odd;           ///< those that turn the leader first

    /// The drawn place of a group; null where there is none.
    const stats::DrawnPlace* placeOf(const Verdict& verdict, std::size_t group) const;
};

/// The values of a condition without which another group would lead, or a pair of their group that is tested
/// on values alone would be called otherwise (a pair that is drawn is not drawn again, and Holm's steps of
/// the other pairs stay); of a condition with more than mostOptionsInFull groups only who leads is looked at.
/// A group of one has nothing to be left out of. Nothing where a window is wanted.
std::vector<Odd> oddOnesOut(const Results& results, const Verdict& verdict);

/// All of it.
Sureness surenessOf(const Results& results, const Verdict& verdict);

} // namespace anvil::results
