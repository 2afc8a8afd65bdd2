// What a group's pieces can be trusted to hold: floors, each with its own promise.
#pragma once

#include <anvil/stats/fit.h>

namespace anvil::stats {

/// Floors of a group, in its unit; p_c: a share p of all pieces exceeds it, with confidence c in per cent.
/// Empty: fewer than three exact values, no spread, a family that does not fit, or a floor that is not above
/// zero.
struct Floors {
    std::optional<double> lowest;       ///< least recorded
    std::optional<double> meanMinus3Sd; ///< complete groups only
    std::optional<double> normal90_95, normal95_95, normal99_95;
    std::optional<double> lognormal90_95;
    std::optional<double> weibull90_95;
};

/// Complete normal and log-normal data: mean − k·s with Owen's k (1968), on the values or their logarithms;
/// Weibull and censored data: from the density ∝ L(μ, σ)/σ.
Floors floorsOf(std::span<const Value> values);

/// One of them alone, for any share and confidence between 0 and 1: all of them take many times as long.
std::optional<double> floorOf(Family family, std::span<const Value> values, double share, double confidence);

} // namespace anvil::stats
