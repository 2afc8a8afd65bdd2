// What is read from a curve where it is asked for: yield, held loads, places, what stayed.
#pragma once

#include "line.h"
#include <anvil/curve/reading.h>

namespace anvil::curve {

/// A chord as a line through two samples: the first at or above each of two loads on the way up.
struct Chord {
    LineFit fit;
    std::size_t first = 0, last = 0;
};
/// x: displacement, f: load, both along the pull; loads in N. Empty: one of them is not reached before `end`.
std::optional<Chord> chordBetween(std::span<const double> x, std::span<const double> f, std::size_t departure,
                                  std::size_t end, double from, double to);

/// Where the curve falls below the line f = slope·(x − toe − offset), after it has left the stiffness line;
/// interpolated. `from`: the last sample of the line. Empty: it never does before the peak.
std::optional<Landmark> yieldAt(std::span<const double> t, std::span<const double> x,
                                std::span<const double> f, std::size_t from, std::size_t peak, double slope,
                                double toe, double offset);

/// Mean, spread and relaxation of a held load over samples a … b.
Held heldOver(std::span<const double> t, std::span<const double> f, std::size_t a, std::size_t b);

/// The greatest load that was never gone below for `seconds` while the displacement went on no faster than
/// `speed`; empty: none.
std::optional<double> sustainedLoad(std::span<const double> t, std::span<const double> x,
                                    std::span<const double> f, std::size_t departure, double seconds,
                                    double speed);

/// The load where the displacement from the toe is first reached; and the other way round.
std::optional<double> loadAt(std::span<const double> x, std::span<const double> f, std::size_t departure,
                             double toe, double travel);
std::optional<double> travelAt(std::span<const double> x, std::span<const double> f, std::size_t departure,
                               double toe, double load);

/// The displacement from the toe that was left where the load, let down after the peak, was gone (2 % of the
/// peak); empty: it broke, or was not let down so far.
std::optional<double> permanentAfter(std::span<const double> x, std::span<const double> f, std::size_t peak,
                                     double toe);

} // namespace anvil::curve
