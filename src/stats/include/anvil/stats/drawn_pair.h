// A pair of groups in which a side holds bounds, compared by draws of both means.
#pragma once

#include <anvil/stats/compare.h>
#include <span>

namespace anvil::stats {

/// The draws of the logarithm of a mean; `atLeast`: all its values are bounds, so that it may only lie
/// higher.
struct DrawnSide {
    std::span<const double> logs;
    bool atLeast = false;
};

/// Everything but pHolm, verdict and moreEach. The ratio is the median of the draws, its interval their 2.5
/// and 97.5 %; p = 2·min(share ≤ 1, share ≥ 1), at least one over the number of draws; tostP the larger
/// share beyond 1/(1 + m) or 1 + m. A side that is only "at least" can be called stronger and nothing else:
/// its p is of that direction alone, and there is no tostP. Empty but for the test where both sides are only
/// "at least" or the draws are not as many on both sides.
Comparison compareDrawn(const DrawnSide& a, const DrawnSide& b, double margin);

} // namespace anvil::stats
