// Values that stand apart. A suggestion to look, never a reason to leave one out.
#pragma once

#include <anvil/stats/summary.h>
#include <vector>

namespace anvil::stats {

/// A value that stands apart, and how likely the most extreme of so many would by chance.
struct Outlier {
    std::size_t index = 0; ///< in the values that were handed in
    double value = 0;
    double p = 0;
};

/// Grubbs (1969): G = max |x − mean|/s, t² = n(n − 2)G²/((n − 1)² − nG²), p = min(1, 2n·P(T > t)) with n − 2
/// degrees of freedom; listed below 0.05. From 15 values on the generalised test of Rosner (1983): up to n/5
/// values one after the other, all up to the last that is below 0.05, each with the p of the step that took
/// it. Without spread none. Empty where the values cannot tell: any bound among them, or fewer than three.
std::optional<std::vector<Outlier>> outliers(std::span<const Value> values);

} // namespace anvil::stats
