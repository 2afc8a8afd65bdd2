// The averaged curve of a group: registered on landmarks, so that its peak is the mean of the peaks.
#pragma once

#include <anvil/curve/reading.h>
#include <vector>

namespace anvil::curve {

struct Average {
    std::size_t curves = 0;
    bool againstTime = false;            ///< no displacement in one of them: all against the time of loading
    bool toTheBreak = false;             ///< all broke: the way from peak to break is registered too
    std::vector<double> x;               ///< m from the toe, or s from the departure of the load; rising
    std::vector<double> load;            ///< N
    std::vector<double> low, high;       ///< mean ∓ one standard deviation (n − 1); the mean where n = 1
    std::vector<double> least, greatest; ///< N
    std::size_t peak = 0;                ///< where the peak stands
};

/// Registers each curve on toe → 0, peak → 1 and, where all broke, break → 2 (without: as far beyond the peak
/// as all go, at each curve's own length from toe to peak), averages the force at equal registered positions
/// (Ramsay and Silverman 2005, ch. 7) and maps back with the mean landmark positions. The averaged peak
/// equals the mean of the peaks. Where the travel goes back, the way up to a place that was reached before is
/// left out. Empty: no curve, or one whose peak lies at its toe.
std::optional<Average> averaged(const std::vector<const ReadCurve*>& curves, std::size_t points = 200);

/// The plain mean, point by point at equal displacement or time, over what all cover; and how much lower its
/// peak lies than the mean of the peaks, N.
struct PlainMean {
    std::vector<double> x, load;
    double bias = 0; ///< mean of the peaks − peak of the mean
};
/// Empty: no curve, or nothing that all cover.
std::optional<PlainMean> plainMean(const std::vector<const ReadCurve*>& curves, std::size_t points = 400);

} // namespace anvil::curve
