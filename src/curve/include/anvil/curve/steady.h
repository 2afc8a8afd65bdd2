// Several channels at one instant: laid on one clock, and what each showed while everything stood still.
#pragma once

#include <anvil/curve/curve.h>
#include <optional>

namespace anvil::curve {

/// Values of a channel with a clock of its own at the times of another, by straight lines between its
/// samples. Before its first and after its last sample the nearest one stands. Both clocks must not step
/// back; s. `values` and `time` have equal length. Empty when there is nothing to take from.
std::vector<double> resampled(std::span<const double> time, std::span<const double> values,
                              std::span<const double> at);

/// One channel over a window: mean, spread about it, and by how much a straight line through it rises from
/// the window's beginning to its end; in the channel's unit.
struct SteadyValue {
    std::string name, unit;
    double mean = 0, sd = 0, drift = 0;
};

/// All channels over the same window.
struct Steady {
    double from = 0, to = 0; ///< s
    std::size_t samples = 0;
    std::vector<SteadyValue> channels; ///< force first, then displacement, then the others
    /// No force channel drifts by more than 1 % of its mean within the window.
    bool still = false;
};

/// Means over the window that ends at a time, `seconds` long. Nothing when fewer than three samples lie in
/// it.
std::optional<Steady> steadyAt(const Curve& curve, double time, double seconds = 1);

/// The longest window of at least `shortest` seconds in which all channels of force stand still together:
/// their means over hundredths of the log stay within 2 % of each other, none lies below a fifth of its
/// greatest, and none drifts by more than 1 %. Nothing without a further channel of force, without a clock
/// that goes forward, or where they never do.
std::optional<Steady> commonSteady(const Curve& curve, double shortest = 1);

/// A channel's share of the load that several carry together.
struct Share {
    std::string name;
    double share = 0; ///< 0 … 1
};
/// Shares of what carries a load together: each channel in newtons but the first (the master) over their sum.
/// Empty for fewer than two, or where they sum to nothing.
std::vector<Share> sharesOf(const Steady& steady);
/// The same of readings at one instant, N.
std::vector<double> sharesOf(std::span<const double> legs);

} // namespace anvil::curve
