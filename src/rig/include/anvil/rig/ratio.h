// What one at the cell is at the specimen: levers, lines in several parts, pulleys, angles.
#pragma once

#include <anvil/quantity/error.h>
#include <anvil/quantity/unit.h>
#include <span>
#include <string>

namespace anvil::rig {

/// One part of the load path between cell and specimen. Lengths in m, angles in rad, moments in N·m, areas in
/// m². Each number has a standard uncertainty of its own.
struct RatioPart {
    enum class Kind {
        lever, ///< a: length from pivot to cell, b: from pivot to specimen; ratio a/b
        line, ///< a: parts of line that carry the specimen, cell in one of them; b: efficiency of each pulley
        angle, ///< a: angle between the cell's line and the direction of load; ratio cos a
        plain, ///< a: any other factor, measured or told
        ram,   ///< a: area that the pressure works on, m², of a display that shows pressure; first of all
        sensor ///< a: N for each V of a display that shows volts, b: V that it shows of nothing; first of all
    } kind = Kind::plain;
    double a = 1, b = 1;
    double ua = 0, ub = 0; ///< standard uncertainties
    double moment = 0;     ///< lever only: what its own weight adds about the pivot, N·m, towards the load
    bool operator==(const RatioPart&) const = default;
};

/// The ratio of a whole load path.
struct Ratio {
    double value = 1, uncertainty = 0; ///< N at the specimen for each N at the cell; standard uncertainty
    quantity::Dimension of = quantity::Dimension::force; ///< what is read at the cell: for N above, its SI
    double offset = 0; ///< N at the specimen when the cell shows nothing: own weight of levers
    double specimen(double cell) const { return value * cell + offset; }
};

/// Multiplies the parts from the cell to the specimen; uncertainties by first-order propagation (JCGM 100,
/// 5.1.2), taken as independent. A line of n parts over pulleys of efficiency e, the cell in its pulled end:
/// 1 + e + … + e^(n−1). Error: a length or count of zero or less, an efficiency outside 0 … 1, an angle of
/// 90° or more, a factor of zero, a ram or a sensor behind another part.
Expected<Ratio> ratioOf(std::span<const RatioPart> parts);

/// "Reads 1, the specimen feels 15.2 ± 0.4."; of a ram "Reads 1 bar, the specimen feels 123 N."
std::string sentence(const Ratio& ratio);

/// Area of a round ram, m², from its bore, m: πd²/4.
double areaOfBore(double bore);

/// What it takes to lift a thing at one place while it still stands on another, N: W·(x_cg − x_pivot)/(x_lift
/// − x_pivot), lengths in m along the thing. Error: lifted where it stands, or a centre of gravity beyond the
/// pivot, where it would tip by itself.
Expected<double> pivotLift(double weight, double centre, double pivot, double lift);

} // namespace anvil::rig
