// Raw samples of one run, and what is put right before they are read.
#pragma once

#include <anvil/quantity/error.h>
#include <anvil/quantity/unit.h>
#include <cstddef>
#include <span>
#include <string>
#include <vector>

namespace anvil::curve {

/// A further channel that was logged with the force: a leg's cell, the input of a hauling system, a
/// temperature.
struct Channel {
    std::string name;
    std::string unit; ///< symbol of the SI unit its values are in
    std::vector<double> values;
    bool operator==(const Channel&) const = default;
};

/// Samples as they were logged, in SI units (s, N, m; a twist logs torque against angle, a drop deceleration,
/// in N·m, rad and m/s² in the place of force and displacement: `load` and `travel` tell). `displacement` is
/// empty when none was logged, `time` when the log has no clock. All non-empty channels have equal length.
/// Never changed by reading.
struct Curve {
    std::vector<double> time;
    std::vector<double> force;
    std::vector<double> displacement;
    std::vector<Channel> others{};
    quantity::Dimension load = quantity::Dimension::force;
    quantity::Dimension travel = quantity::Dimension::length;

    bool operator==(const Curve&) const = default;
};

/// A curve with its clock in order. Where nothing had to be changed the spans point into the raw curve.
struct Ordered {
    std::span<const double> time, force, displacement;
    std::size_t dropped = 0;   ///< samples left out: not finite, or an identical row
    std::size_t moved = 0;     ///< samples whose stamps were out of order by up to ten places
    std::size_t spread = 0;    ///< samples that shared a stamp and were spread evenly
    std::size_t otherRuns = 0; ///< samples after a larger step back in time: another run, not read here
    Curve storage;
};

/// Puts the clock in order: drops non-finite samples and identical rows, sorts stamps displaced by up to ten
/// places, ends the run at a larger step back, spreads equal stamps evenly up to the next one. `storage`
/// keeps what had to be copied, so the result must not outlive `raw`. A curve without a clock is numbered 0,
/// 1, 2 … s.
Ordered order(const Curve& raw);

/// Splits at every step back in time of more than ten places; a curve without a clock is one run.
std::vector<Curve> splitAtClockResets(const Curve& raw);

/// Resolution q of a quantised signal in N: the smallest non-zero step between successive samples if at least
/// 5 % of the steps between 10 and 90 % of the peak are zero, else 0.
double resolution(std::span<const double> force);

/// Standard deviation of the noise in N: the greater of q/√12 and a robust estimate from second differences
/// at lags 1 … 16 (1.4826 · median |F[i+2L] − 2F[i+L] + F[i]| / √6), which a straight ramp does not inflate.
double noise(std::span<const double> force, double resolution);

/// Replaces spikes of up to three samples by a straight line, in place, and returns how many samples that
/// were. A spike lies beyond both neighbours on one side by more than max(6 noise, 3q) and off the 11-sample
/// median by more than max(6 · 1.4826 · MAD, 6 noise, 3q); the drop at a break and real peaks of four samples
/// survive.
std::vector<std::size_t> removeSpikes(std::span<double> force, double noise, double resolution);

} // namespace anvil::curve
