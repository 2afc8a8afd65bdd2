// Does a value rise or fall along an axis? A straight line through points.
#pragma once

#include <optional>
#include <span>

namespace anvil::stats {

/// A least-squares line value = intercept + slope · x.
struct Trend {
    double intercept = 0, slope = 0;
    double slopeError = 0;   ///< standard error of the slope
    std::optional<double> p; ///< two-sided, slope = 0, t with n − 2 df; empty when there is no scatter
};

/// Ordinary least squares; x and y of equal length. Empty for fewer than three points or no spread in x.
/// Source: Draper & Smith, Applied Regression Analysis, ch. 1.
std::optional<Trend> linearTrend(std::span<const double> x, std::span<const double> y);

/// The median of the slopes of all pairs of points with different x (Theil 1950, Sen 1968). Empty without
/// any.
std::optional<double> medianSlope(std::span<const double> x, std::span<const double> y);

} // namespace anvil::stats
