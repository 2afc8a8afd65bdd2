// Which option comes first.
#pragma once

#include <anvil/results/pairs.h>

namespace anvil::results {

/// Whether `a` is wanted before `b` by its mean: most or least first, or most often inside the window, then
/// nearest to its middle. What has no mean comes last.
bool comesBefore(const Goal& goal, const Group& a, const Group& b);

/// Gives places and tie letters to the groups of a condition, `members` of `groups` best first, by their
/// pairs. Means beyond the ceiling share the first place and are tied; no place is given without a mean, or
/// while the ends of a window are not said.
void placeGroups(const Goal& goal, std::vector<Group>& groups, const std::vector<std::size_t>& members,
                 const std::vector<PairResult>& pairs);

} // namespace anvil::results
