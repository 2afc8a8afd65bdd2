// A sample on the location–scale form y = location + scale·z, and its likelihood.
#pragma once

#include <anvil/stats/fit.h>
#include <vector>

namespace anvil::stats {

/// A value on the scale of y; the second end is that of `between`.
struct Observation {
    double y = 0, upper = 0;
    Bound bound = Bound::exact;
};

/// The values on the scale of a family, without those set aside. Empty: one of them cannot be.
std::optional<std::vector<Observation>> observed(Family family, std::span<const Value> values);

/// Whether a maximum of the likelihood can exist: no point lies in all closed intervals, and something bounds
/// the spread (an exact value, or an interval with two ends).
bool canBeFitted(const std::vector<Observation>& all);

/// ln of the density, of P(Z > z), of P(Z ≤ z) and of P(z ≤ Z ≤ w) with the first two derivatives by z (and
/// w).
struct Log {
    double value = 0, first = 0, second = 0;
};
Log logDensity(Family family, double z);
Log logAbove(Family family, double z);
Log logBelow(Family family, double z);
struct LogBetween {
    double value = 0, z = 0, w = 0, zz = 0, zw = 0, ww = 0; ///< and derivatives
};
LogBetween logBetween(Family family, double z, double w);

/// ln L at location and scale, of y.
double logLikelihood(Family family, const std::vector<Observation>& all, double location, double scale);

} // namespace anvil::stats
