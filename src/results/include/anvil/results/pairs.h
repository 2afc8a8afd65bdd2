// Every two groups of a condition, and every two conditions of an option, compared.
#pragma once

#include <anvil/results/groups.h>
#include <anvil/stats/compare.h>

namespace anvil::results {

/// One pair of groups: two options in one condition, or two conditions of one option.
struct PairResult {
    std::size_t a = 0, b = 0; ///< indices of groups
    bool acrossConditions = false;
    stats::Comparison comparison;
    bool open = false; ///< too close to call within a condition, and more pulls like these would settle it
};

/// Compares every two of the `members` (indices of groups), in their order: Welch on the values, paired where
/// every value has a block and the two share them; corrected after Holm. With a control its pairs are one
/// family and those without it another; across conditions there is one. Where a side holds bounds the pair is
/// compared by 20 000 draws of both means on logarithms: with each group's own spread where both have five
/// exact values, else with one spread for all members (not where a piece counts on both sides). One that
/// holds nothing but bounds can be called stronger and nothing else, else it is "cannot be told yet"; one
/// with nothing to compare "not enough".
std::vector<PairResult> pairsOf(const Results& results, const Goal& goal, const std::vector<Group>& groups,
                                const std::vector<std::size_t>& members, bool acrossConditions);

} // namespace anvil::results
