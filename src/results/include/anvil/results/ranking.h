// How sure the order of a condition is.
#pragma once

#include <anvil/results/verdict.h>
#include <anvil/stats/ranking.h>

namespace anvil::results {

/// The drawn places of the groups of a condition.
struct Ranking {
    stats::DrawnSpread spread = stats::DrawnSpread::pooled;
    std::vector<std::size_t> groups;       ///< indices into the verdict's, by expected place
    std::vector<stats::DrawnPlace> places; ///< in the same order
};

/// Draws the means of the condition's groups that hold any value. Streams belong to the names of option and
/// condition, so that the same seed gives the same answer whatever else there is. Empty where nothing can be
/// drawn (see stats::drawRanking), or where a window is wanted: inside it more is not better.
std::optional<Ranking> rankingOf(const StudyData& data, const Verdict& verdict, Id condition,
                                 std::uint64_t seed = 1, int draws = 20000);

} // namespace anvil::results
