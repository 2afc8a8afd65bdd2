// What stood between a display and the piece when a number was read off it.
#pragma once

#include <anvil/quantity/calibration.h>
#include <anvil/quantity/unit.h>
#include <string>
#include <vector>

namespace anvil::domain {

/// A display in front of levers, lines, a ram, a sensor, or a dial with a table: the piece felt
/// factor · T(reading) + offset, T the table (monotone cubic) where there is one.
struct ReadThrough {
    double factor =
        1; ///< N at the piece for each N of the table, or each SI unit of what is shown without one
    double offset = 0;                                      ///< N, such as the own weight of a lever
    double doubt = 0;                                       ///< standard uncertainty of the factor
    quantity::Dimension shows = quantity::Dimension::force; ///< what the display shows; ratio: bare divisions
    std::vector<quantity::CalibrationPoint> table{};        ///< what is shown, SI, and N in front of the path

    /// N at the piece of what was read, in SI of what is shown; beyond the table's ends a guess.
    quantity::Calibrated felt(double read) const;
    /// Half-width in N at the piece that comes of one of `u` in what was read.
    double feltDoubt(double read, double u) const;
    /// Standard uncertainty of the path itself at that reading, N at the piece.
    double pathDoubt(double read) const;
    /// What the display shows when the piece feels `load` N.
    double shown(double load) const;
    bool operator==(const ReadThrough&) const = default;
};

/// What stands there, as the rest of a sentence: "the piece feels 10 × what its display shows", "its display
/// shows a pressure".
std::string standsBetween(const ReadThrough& path);

} // namespace anvil::domain
