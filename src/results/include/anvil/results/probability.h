// A probability plot: where the values of a group lie, against what fitted families say.
#pragma once

#include <anvil/results/groups.h>
#include <anvil/stats/fit.h>
#include <vector>

namespace anvil::results {

/// A share below against a value, SI.
struct PlotPoint {
    double value = 0, below = 0;
    Id pull = 0;
};

/// What a family says.
struct PlotLine {
    stats::Family family = stats::Family::normal;
    bool best = false;                ///< the least Akaike measure
    std::vector<PlotPoint> line;      ///< at rising shares
    std::vector<PlotPoint> low, high; ///< of the best one, where three values are exact: 90 % band
};

struct ProbabilityPlot {
    std::vector<PlotPoint> points; ///< of exact values, by rising value
    std::vector<PlotPoint> bounds; ///< "at least" ones, at the share where they stand
    std::vector<PlotLine> lines;
};

/// Positions after Herd (1960) and Johnson (1964): i/(n + 1) for complete groups, and for those with "at
/// least" values by reverse ranks. The band holds, at each share, the value that so many pieces lie below
/// with 5 and 95 % of the density ∝ L(μ, σ)/σ. Empty: fewer than three exact values, or one that says "at
/// most" or "between", whose place is open.
std::optional<ProbabilityPlot> probabilityPlot(const Group& group);

} // namespace anvil::results
