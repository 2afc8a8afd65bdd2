// The share of pieces that hold more than a load, from exact values and such that are "at least".
#pragma once

#include <anvil/stats/summary.h>
#include <vector>

namespace anvil::stats {

/// A step of the estimate: beyond `value` this share is left.
struct SurvivalStep {
    double value = 0, share = 1;
};

/// The product-limit estimate (Kaplan and Meier 1958), by rising value; an "at least" at the value of an
/// exact one counts as holding more. Empty: nothing exact, or a value that is "at most" or between bounds.
std::vector<SurvivalStep> kaplanMeier(std::span<const Value> values);

/// The least value beyond which at most half are left; empty where that is not reached.
std::optional<double> medianOf(std::span<const SurvivalStep> steps);

} // namespace anvil::stats
