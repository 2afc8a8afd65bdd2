// The steps of a reading, one function each.
#pragma once

#include "line.h"
#include <anvil/curve/reading.h>
#include <optional>
#include <span>

namespace anvil::curve {

struct Baseline {
    std::optional<double> level; ///< N; none when the log starts loaded
    std::size_t end = 0;         ///< first sample under load
    bool setAgain = false;       ///< the zero was set once more before the load came; this is the last one
};

/// The last unloaded stretch before the load: level, and ending at the first of three consecutive samples
/// more than five noise away. A stretch that climbs as the pull itself does is no zero.
Baseline findBaseline(std::span<const double> load, double noise, double resolution);

/// The first sample after a jump of level on the way up: the force steps up at once and goes on at its old
/// pace, or steps down by just the reading without load. `force` is counted from `baseline`.
std::optional<std::size_t> jumpUnderLoad(std::span<const double> load, std::size_t departure,
                                         std::size_t peak, double baseline, double noise, double resolution);

/// The greatest sample; of tied neighbours the middle one.
std::size_t peakIndex(std::span<const double> load);

/// Whether the greatest value is held for five samples where the samples before it were heading clearly
/// higher.
bool flatTop(std::span<const double> load, double noise, double resolution);

/// Whether the top is level within its noise and ends a straight, steep rise in a corner: clipped before the
/// noise was added.
bool clippedUnderNoise(std::span<const double> load, std::size_t peak, double noise, double resolution);

/// Whether the displacement `x` stood still while the force stayed at its top: the piece was held there.
bool stoodStill(std::span<const double> x, std::span<const double> load, std::size_t departure,
                std::size_t peak, double noise);

/// First local maximum before the peak, above 10 % of it, followed by a fall of more than max(3 % of it, 1 %
/// of the peak, 8 noise, 2q) while the displacement `x` (or empty) goes on. Without displacement a fall that
/// lasts longer than a tenth of the time since departure is none: the piece was let down, or relaxed.
std::optional<std::size_t> firstSlip(std::span<const double> load, std::span<const double> time,
                                     std::span<const double> x, std::size_t departure, std::size_t peak,
                                     double noise, double resolution);

struct StraightPart {
    LineFit fit;
    std::size_t first = 0, last = 0;
    bool straight = false;
};

/// The steepest straight part of the rise between 10 and 90 % of `reference`, grown while it stays straight.
std::optional<StraightPart> straightSteepPart(std::span<const double> x, std::span<const double> load,
                                              std::size_t departure, std::size_t end, double reference,
                                              double noise);

/// Median force over [peak + Δ, peak + 2Δ]; none if less than half of that stretch was recorded.
std::optional<Residual> residual(std::span<const double> x, std::span<const double> load, std::size_t peak,
                                 double delta);

/// Way from 90 to 50 % after the peak over the way from 50 to 90 % before it.
std::optional<Fall> fall(std::span<const double> x, std::span<const double> load, std::size_t peak);

} // namespace anvil::curve
