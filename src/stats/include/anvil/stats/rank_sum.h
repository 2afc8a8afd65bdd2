// Two groups compared without a family: by ranks.
#pragma once

#include <optional>
#include <span>

namespace anvil::stats {

/// Two-sided p of Mann and Whitney (1947). Exact where there are at most 20 values and no ties: 2·min of the
/// two tails, at most 1; else by the normal law with the correction for ties and for continuity. Empty: a
/// side without values, or all values equal.
std::optional<double> mannWhitneyP(std::span<const double> a, std::span<const double> b);

} // namespace anvil::stats
