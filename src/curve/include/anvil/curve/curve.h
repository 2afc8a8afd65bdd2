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
/// in N·m, rad and m/s² as load and travel: `loadKind` and `travelKind` tell). `travel` is
/// empty when none was logged, `time` when the log has no clock. All non-empty channels have equal length.
/// Never changed by reading.
struct Curve {
    std::vector<double> time;
    std::vector<double> load;
    std::vector<double> travel;
    std::vector<Channel> others{};
    quantity::Dimension loadKind = quantity::Dimension::force;
    quantity::Dimension travelKind = quantity::Dimension::length;

    bool operator==(const Curve&) const = default;
};

/// A curve with its clock in order. Where nothing had to be changed the spans point into the raw curve.
struct Ordered {
    std::span<const double> time, load, travel;
    std::size_t dropped = 0;   ///< samples left out: not finite, or an identical row
    std::size_t moved = 0;     ///< samples whose stamps were out of order by up to ten places
    std::size_t spread = 0;    ///< samples that shared a stamp and were spread evenly
    std::size_t otherRuns = 0; ///< samples after a larger step back in time: another run, not read here
    Curve storage;
};

/// Puts the clock in order: drops non-finite samples, sorts stamps displaced by up to ten places, ends the
/// run at a larger step back, spreads equal stamps evenly up to the next one. Identical rows are dropped as
/// repeats only where fewer than 2 % of the rows share a stamp: under whole-second stamps they are readings.
/// `storage` keeps what had to be copied, so the result must not outlive `raw`. A curve without a clock is
/// numbered 0, 1, 2 … s.
Ordered order(const Curve& raw);

/// Samples `from` up to but without `to`.
struct Rows {
    std::size_t from = 0, to = 0;
    bool operator==(const Rows&) const = default;
};

/// The runs of a log, cut at every step back in time of more than ten places; without a clock it is one.
std::vector<Rows> runsByClock(const Curve& raw);

/// Where a log under one clock is cut.
enum class Cut {
    betweenPieces, ///< where the load broke off, or the displacement went back unloaded
    atEveryRise    ///< at every stretch without load
};

/// The pulls of a log that goes on over several pieces under one clock: a new one begins where the load broke
/// off and came again, or where the displacement went back, unloaded, before the next rise. A piece that is
/// let down gradually and loaded again stays one run (bedding-in, proof load, cycles). The cuts lie in the
/// middle of the stretch without load. Where there is one pull the result is empty.
std::vector<Rows> pullsIn(const Curve& raw, Cut cut = Cut::betweenPieces);
/// The same as curves of their own.
std::vector<Curve> splitAtPulls(const Curve& raw, Cut cut = Cut::betweenPieces);

/// The part of a curve from sample `from` up to but without sample `to`, all its channels.
Curve part(const Curve& curve, std::size_t from, std::size_t to);

/// Resolution q of a quantised signal in N: the smallest gap between distinct recorded values if at least 5 %
/// of the samples repeat another's value and the gaps are whole multiples of it, else 0. The even step of a
/// ramp between still ends is no resolution. From at most 65 536 evenly strided samples.
double resolution(std::span<const double> load);

/// Standard deviation of the noise in N: the greater of q/√12 and a robust estimate from second differences
/// at lags 1, 2, 4 … up to `longestLag` samples, none beyond a 400th of the signal
/// (1.4826 · median |F[i+2L] − 2F[i+L] + F[i]| / √6), which a straight ramp does not inflate. Mains hum needs
/// lags of 20 ms.
double noise(std::span<const double> load, double resolution, std::size_t longestLag = 16);

/// 20 ms in samples of this clock, at least 16: the longest lag at which noise is looked for.
std::size_t longestLag(std::span<const double> time);

/// Replaces spikes of up to three samples by a straight line, in place, and returns which samples those
/// were. A spike lies beyond both neighbours on one side by more than max(6 noise, 3q), off the 11-sample
/// median by more than max(6 · 1.4826 · MAD, 6 noise, 3q), and off both the line through the five samples
/// before it and the one through the five after, which agree: the signal comes back to where it was heading.
/// The drop at a break, a peak before it however fast the log, and real peaks of four samples survive.
std::vector<std::size_t> removeSpikes(std::span<double> load, double noise, double resolution);

} // namespace anvil::curve
