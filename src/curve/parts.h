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
};

/// The unloaded stretch at the start: it ends at the first of three consecutive samples more than five noise
/// away.
Baseline findBaseline(std::span<const double> force, double noise);

/// Whether the greatest value is held for five samples where the samples before it were heading clearly
/// higher.
bool flatTop(std::span<const double> force, double noise, double resolution);

/// First local maximum before the peak, above 10 % of it, followed by a fall of more than max(3 % of it, 8
/// noise, 2q).
std::optional<std::size_t> firstSlip(std::span<const double> force, std::size_t departure, std::size_t peak,
                                     double noise, double resolution);

struct StraightPart {
    LineFit fit;
    std::size_t first = 0, last = 0;
    bool straight = false;
};

/// The steepest straight part of the rise between 10 and 90 % of `reference`, grown while it stays straight.
std::optional<StraightPart> straightSteepPart(std::span<const double> x, std::span<const double> force,
                                              std::size_t departure, std::size_t end, double reference,
                                              double noise);

/// Median force over [peak + Δ, peak + 2Δ]; none if less than half of that stretch was recorded.
std::optional<Residual> residual(std::span<const double> x, std::span<const double> force, std::size_t peak,
                                 double delta);

/// Way from 90 to 50 % after the peak over the way from 50 to 90 % before it.
std::optional<Fall> fall(std::span<const double> x, std::span<const double> force, std::size_t peak);

} // namespace anvil::curve
