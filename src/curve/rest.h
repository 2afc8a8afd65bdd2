// What the level after the pull says of the zero: set again under load, or drifted.
#pragma once

#include "parts.h"

namespace anvil::curve {

/// A step of the zero under load, taken back.
struct StepBack {
    std::size_t at = 0; ///< the first sample after it
    double by = 0;      ///< N that were put on from there on
};
/// A drift of the zero, taken off.
struct DriftOff {
    double slope = 0;    ///< N/s
    bool byLine = false; ///< by the line through both rests, which do not both slope as it does
};
/// What was found and done.
struct Settled {
    std::optional<StepBack> step;
    std::optional<DriftOff> drift;
    double below = 0; ///< N that the rest lies below the zero without a reason that was found; else 0
};

/// Looks at the level after the load has gone, of a load that counts from its zero with departure and sign
/// known. More than max(5 noise, 2 % of the greatest) below zero, or with the slope of a drift at both ends,
/// it speaks of the zero: one step in the record that explains it, down or up, is taken back, a slow drift is
/// taken off. A rest above the zero may be what the piece still holds and is left alone where nothing else
/// tells.
/// Source: calculations, reading one force curve, 18.
Settled settleZero(std::span<double> load, std::span<const double> time, std::size_t departure, double noise);

/// A stretch of the clock in which nothing was logged while the piece was under load.
struct Gap {
    std::size_t before = 0; ///< the last sample before it
    bool atPeak = false;    ///< the load beside it is within a fifth of the greatest: the peak may lie in it
};
/// Gaps of more than 20 median steps and a second under load, first to last. Source: the same, 19.
std::vector<Gap> gapsUnderLoad(std::span<const double> load, std::span<const double> time);

/// Whether the pull goes to negative loads: the side on which the load stays longest above half of the
/// greatest, so that a recoil that exceeds the pull does not turn it round. Source: the same, 19.
bool pullsDown(std::span<const double> load, std::span<const double> time, double zero);

} // namespace anvil::curve
