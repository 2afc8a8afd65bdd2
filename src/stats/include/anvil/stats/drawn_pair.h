// A pair of groups in which a side holds bounds, compared by draws of both averages.
#pragma once

#include <anvil/stats/compare.h>
#include <span>

namespace anvil::stats {

/// The draws of the logarithm of an average; `only`: above or below where all its values are bounds of that
/// kind, so that it may only lie higher, or lower.
struct DrawnSide {
    std::span<const double> logs;
    Bound only = Bound::exact;
};

/// Everything but pHolm, verdict and moreEach. The ratio is the median of the draws, its interval their 2.5
/// and 97.5 %; p = 2·min(share ≤ 1, share ≥ 1), at least one over the number of draws; tostP the larger
/// share beyond 1/(1 + m) or 1 + m. A side of bounds only can be called in their direction and in no other: p
/// is of that direction alone, there is no tostP, and the interval is open that way. Empty but for the test
/// where the bounds of both sides leave it open, or the draws are not as many on both sides.
/// Source: two means with spreads of their own by draws from each, Box & Tiao, Bayesian Inference in
/// Statistical Analysis (1973), sec. 2.5; equivalence by two one-sided tests, Schuirmann 1987. With n draws a
/// p is told to about √(p/n).
Comparison compareDrawn(const DrawnSide& a, const DrawnSide& b, double margin);

/// The interval of the same ratio at another level: 0.05 gives that of compareDrawn.
std::optional<std::pair<double, double>> drawnInterval(const DrawnSide& a, const DrawnSide& b, double level);

} // namespace anvil::stats
